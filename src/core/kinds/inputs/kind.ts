/** What the rule program is told: everything that the house asks about one kind of input. */
export interface InputKind {
  /** What it belongs to, by number. */
  of: 'sensor' | 'motor' | 'signal' | 'post' | 'block' | 'traffic section' | 'any';
  /** Who works it: track and trains, people, or nobody. */
  from: 'track' | 'people' | 'nobody';
  /** It is true for one scan each time, however long it was worked. */
  momentary?: true;
  /** What the rules take it for in case of doubt, by its number; undefined where neither value is safer than the other. */
  restrictive?: number;
}
