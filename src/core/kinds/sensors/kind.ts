import type { Notice } from './notices';

/** What a sensor in a feeder does with the current in it. */
export interface InFeeder {
  /** What it takes of the track voltage, in V. */
  dropV: number;
  /** The current that it notices, through one turn, in mA: as long as nobody has measured it. */
  noticesMa: number;
  /** How often the feeder is wound through it, usually; undefined where it is not wound at all. */
  turns?: number;
}

/** How two sensors at each end of a block tell of it together. */
export interface InPairs {
  /** What passes is counted, in so many bits: both have to notice the same one at once. Without this each passing is a whole train. */
  counts?: { what: string; bits: number };
}

/** One kind of sensor: everything that the house asks about it. What is noticed where follows from `notices` and `reachMm`. */
export interface SensorKind {
  /** What it is called, beginning a sentence: “Current detector”. */
  title: string;
  /** What the names of new ones begin with: D1, D2 … */
  names: string;
  /** What it is good for and how it fails, in a sentence, shown where one is chosen. */
  means: string;
  /** What it says that is not so, and when, in a sentence. Common practice, no source. */
  getsWrong: string;
  notices: Notice;
  /** It watches the whole of its section; or as far as this to either side of its place, in mm. */
  reachMm: 'section' | number;
  /**
   * It notices nothing, and still tells of the block in which it stands: for a time after a train was noticed there, as people say, turned over by
   * each pulse of a spot there, or from when a spot there notices the nose of a train until one beyond the block does.
   */
  tells?: 'for a time' | 'as people say' | 'by turns' | 'by the nose';
  /** It stands beside the track and looks at the side of what passes: in a curve the ends of a vehicle swing away from it. */
  beside?: true;
  /** Light that falls into it from the room is to it as what it notices. */
  takesRoomLight?: true;
  /** It says so for an instant: a pulse can be missed, or come twice. */
  pulses?: true;
  /** Two of them at each end of a block can tell of it. */
  inPairs?: InPairs;
  /** It lies in the feeder of its section. */
  inFeeder?: InFeeder;
  /** What it notices joins the two rails: where these are the two poles of the power, that is a short circuit. */
  joinsRails?: true;
  /** How long a new one keeps “occupied” after it noticed something last. */
  holdMs: number;
  /** What it says, after its name. */
  sees: string;
  seesNothing: string;
  /** What a train has none of when it cannot be noticed. */
  wants: string;
  /** How it is drawn on the track, as a path around its place; nothing for one that watches a section. */
  mark: string;
}
