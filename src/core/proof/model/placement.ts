import type { TapeEntry } from '../../plant';

/** Where a train begins: the entries it stands on, tail first, and the running distance of its nose. */
export interface Start {
  tape: TapeEntry[];
  noseMm: number;
}

/** The number of the placement in which a train begins. */
export const STARTS_AT = 0;

/** What moves a train: how far it needs to stop, and how fast it runs at most. */
export interface Motion {
  brakingMm: number;
  topMmPerS: number;
  /** No current flows in the track while it stands. */
  closes: boolean;
  /** The output for power that switches each section, by its number; -1 for none. */
  powers?: readonly number[];
  /** Where it begins it stands without current, which these outputs for power would give it. */
  beginsCutOffBy?: readonly number[] | undefined;
  /** People look whether it is in these blocks, or over these motors: a placement is all in one, or all out of it. */
  lookedAt?: { blocks: readonly number[]; motors: readonly number[] };
  /** Where a pulse may be missed. */
  misses?: (field: number) => boolean;
}

/** A signal, or the end of the track, that a train may no longer be able to stop at. */
export interface Before {
  /** Index of the signal, or END_OF_TRACK. */
  signal: number;
  /** From where the train comes onto the piece under its nose. */
  at: number;
  /** Motors of facing points on the way there, each with how it has to lie for this to be what comes. */
  over: { motor: number; position: number }[];
}

/** What happens when a train goes from one placement to the next. */
export interface Advance {
  to: number;
  /** Of what lies before it, by number, what must let it pass first. */
  gates: number[];
  /** Of what lies before it, by number, the signals it passes. */
  passes: number[];
  /** For each thing before it, which it is in the next placement; -1 when it is no longer before it. */
  carry: number[];
  /** Motors of points it runs onto, and how each must lie: 0 straight, 1 diverging. */
  turnouts: { motor: number; position: number; facing: boolean }[];
  /** Whether a field feels it: the first part of the train comes into it, or the last one leaves it. */
  seen: boolean;
  /** It runs off the end of the track, and stays where it is. */
  offTheEnd: boolean;
  /** How far the train runs from where this placement begins to where the next one does, in mm. */
  runMm: number;
  /** It goes nowhere, but comes to rest, so that what needs current does not notice it, or starts again. */
  rests?: 'begins' | 'ends';
  /** One that starts wants current: one of these outputs for power, by number, has to feed it; undefined where nothing switches it. */
  fedBy?: readonly number[] | undefined;
  /** Fields in which it is not noticed, though it should be. */
  misses?: readonly number[];
}

/** A placement that a train turns back into, and what it then stands on, tail first. */
export interface Turn {
  to: number;
  standsOn: TapeEntry[];
  /** By which ends of blocks it came in, now that it runs the other way: whatever is said of it then follows from these. */
  cameIn: string;
  /** Where it stands to turn back into that one, from where the placement it leaves begins, in mm; */
  standsMm: [number, number];
  /** then its nose is this far beyond where that one begins, less how far it stood from where this one does, in mm. */
  beyondMm: number;
}

/** A stretch of a train’s way between two events that are noticed: it is somewhere in it. */
export interface Placement {
  tape: TapeEntry[];
  /** It runs the other way round than at its start. */
  turned: boolean;
  /** Its nose is between these, counted from where the piece under it at the end of the placement begins. */
  noseMm: [number, number];
  /** Blocks it holds by its nose or a wheel, and fields that feel a part of it. */
  blocks: number[];
  detected: number[];
  /** Those blocks of each of the places that it is made of. */
  heldIn: number[][];
  /** The fields that each part is in where it begins, and where it ends. */
  parts: [number[][], number[][]];
  /** Motors of the points whose blades lie under its body. */
  over: number[];
  /** Fouling places its body stands in somewhere in it, and those it stands in all through: twice the pair, and one more for its second side. */
  zones: number[];
  zonesThroughout: number[];
  /** What lies before it within its braking distance, nearest first, whatever the points. */
  before: Before[];
  /** The track ends before it and nothing else can come. */
  terminus: boolean;
  advances: Advance[];
  /** Where it is after turning back; none where it may not. */
  turns: Turn[];
}
