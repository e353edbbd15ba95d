/** What the rule program commands: everything that the house asks about one kind of output. */
export interface OutputKind {
  /** What it belongs to, by number. */
  of: 'signal' | 'motor' | 'section' | 'sensor';
  /** What it can be in the rules, the most restrictive first; nothing where it is yes or no, or follows from what it belongs to. */
  values?: readonly string[];
  /** It is there for people to look at; what trains make of it, if anything, is a rule of its own. */
  forPeople?: boolean;
}

/** How much power a section has, and what becomes of trains and sensors there. */
export interface PowerLevel {
  id: string;
  says: string;
  /** The share of its top speed that a train runs at most. */
  speedShare: number;
  /** Sensors that want track voltage notice trains. */
  feeds: boolean;
}
