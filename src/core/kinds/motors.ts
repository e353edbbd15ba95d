/** What moves points over: everything that the house asks about it. */
export interface MotorKind {
  /** In a list to choose from. */
  says: string;
  /** How long it usually takes, in ms; common practice, no source. */
  throwMs: number;
  /** It moves when it is told to; else a person moves the points, and nobody else. */
  driven: boolean;
}

/** Ways in which points are moved over. */
export const MOTORS = {
  hand: { says: 'by hand', throwMs: 1500, driven: false },
  snap: { says: 'by a coil that snaps them over', throwMs: 500, driven: true },
  slow: { says: 'by a slow motor', throwMs: 3000, driven: true },
} as const satisfies Record<string, MotorKind>;
export type MotorKindId = keyof typeof MOTORS;
export const MOTOR_KIND_IDS = Object.keys(MOTORS) as MotorKindId[];
