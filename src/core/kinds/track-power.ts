/** One way in which trains get their current. */
export interface TrackPower {
  /** In a sentence: “two-rail digital”. */
  says: string;
  /** The two rails are the two poles, so that a track that comes back on itself the other way round is a short circuit. */
  twoPoles: boolean;
  /** Trains take current from the track at all, so that it can be noticed. */
  inTrack: boolean;
  /** No current flows while trains are to stand. */
  closes?: boolean;
}

/** How trains are powered. Common practice, no source. */
const WAYS = {
  'two-rail DC': { says: 'two-rail DC', twoPoles: true, inTrack: true, closes: true },
  'two-rail digital': { says: 'two-rail digital', twoPoles: true, inTrack: true },
  'centre rail': { says: 'a centre rail', twoPoles: false, inTrack: true },
  battery: { says: 'batteries, none in the track', twoPoles: false, inTrack: false },
} as const satisfies Record<string, TrackPower>;

export type TrackPowerId = keyof typeof WAYS;
/** Every way, by the name that documents have for it. */
export const TRACK_POWERS: Record<TrackPowerId, TrackPower> = WAYS;
export const TRACK_POWER_IDS = Object.keys(TRACK_POWERS) as TrackPowerId[];
