/** How trains are let into a part of the layout: everything that the house asks about it. Common practice, no source. */
export interface Admission {
  /** In a sentence: “trains come in …”. */
  says: string;
  /** What that means for crews, in a sentence. */
  means: string;
  /** Somebody has to be at a post; when nobody is, what is chosen for that holds. */
  post?: boolean;
  /** Signals stand at its edges. */
  signals?: boolean;
}

const WAYS = {
  nothing: {
    says: 'with no protection, on purpose',
    means: 'Nothing keeps two trains apart. That was decided, and why.',
  },
  'on sight': { says: 'on sight', means: 'Crews go slowly and look out for each other.' },
  automatic: {
    says: 'by automatic signals',
    means: 'Signals follow the trains; nobody has to be there.',
    signals: true,
  },
  operator: {
    says: 'when a local operator lets them',
    means: 'Somebody at a post clears a signal for each train.',
    post: true,
    signals: true,
  },
  interlocked: {
    says: 'over routes that lock each other',
    means: 'A route is set and held for each train; what would meet it is locked.',
    signals: true,
  },
} as const satisfies Record<string, Admission>;

export type AdmissionId = keyof typeof WAYS;
export const ADMISSION_IDS = Object.keys(WAYS) as AdmissionId[];
/** Every way, by the name that documents have for it. */
export const ADMISSIONS: Record<AdmissionId, Admission> = WAYS;

/** What an operator's signals show while nobody is at the post. */
export const EMPTY_POSTS = {
  caution: 'caution: come in slowly, on sight',
  stop: 'stop: ask the person in charge',
} as const;
export type EmptyPostId = keyof typeof EMPTY_POSTS;
export const EMPTY_POST_IDS = Object.keys(EMPTY_POSTS) as EmptyPostId[];
