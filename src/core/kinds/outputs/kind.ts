/** A shape that a mark is drawn of, around its place: a path with what fills and strokes it, by the names of the sheet’s colours. */
export interface MarkShape {
  d: string;
  fill?: MarkColour;
  stroke?: MarkColour;
  width?: number;
}
export type MarkColour = 'ink' | 'sheet' | 'warn' | 'stop' | 'accent-band';

/** What the rule program commands: everything that the house asks about one kind of output. */
export interface OutputKind extends Partial<WorkedByPatterns> {
  /** What it belongs to, by number. */
  of: 'signal' | 'motor' | 'section' | 'sensor';
  /** What it can be in the rules, the most restrictive first; nothing where it is yes or no, or follows from what it belongs to. */
  values?: readonly string[];
  /** It is there for people to look at; what trains make of it, if anything, is a rule of its own. */
  forPeople?: boolean;
}
/** What is said besides of one that patterns alone work. */
interface WorkedByPatterns {
  /** It is the first that is so of what they say, else this; where none says anything, there is no such output. */
  otherwise: string;
  /** What is said of it, with {} for its value. */
  says(name: string): string;
  /** How each value is drawn beside what it belongs to, within 16 by 16; nothing is drawn of a value that is not there. */
  marks: Readonly<Record<string, readonly MarkShape[]>>;
  /** How it stands in the key: in words, and by the mark of a value or shapes of its own. */
  key: { says: string; mark: string | readonly MarkShape[] };
}
/** An entry of the table: one that patterns alone work says all of that, any other nothing of it. */
export type OutputEntry = Omit<OutputKind, keyof WorkedByPatterns> &
  (WorkedByPatterns | { [K in keyof WorkedByPatterns]?: never });

/** How much power a section has, and what becomes of trains and sensors there. */
export interface PowerLevel {
  id: string;
  says: string;
  /** The share of its top speed that a train runs at most. */
  speedShare: number;
  /** Sensors that want track voltage notice trains. */
  feeds: boolean;
}
