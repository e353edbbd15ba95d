/** How a motor can lie. */
export type Lie = 'straight' | 'diverging';

/** Two ports that are joined, and how each motor has to lie for that; one that is not named may lie either way. */
export interface PointsWay {
  joins: readonly [string, string];
  lies: readonly (Lie | undefined)[];
}

/**
 * One kind of points: everything that the house asks about it. Whatever way its motors lie, a train that comes to any port finds
 * a way on as far as the motors decide that lead it; against the others it runs into points that are set against it.
 */
export interface PointsKind {
  /** What it is called, beginning a sentence. */
  title: string;
  /** The ends of track that meet in it. */
  ports: readonly string[];
  /** What each motor is called after the name of the points; nothing for the only one. */
  motors: readonly string[];
  ways: readonly PointsWay[];
  /** Ports whose tracks foul each other as far as the clearance point. */
  fouls: readonly (readonly [readonly string[], readonly string[]])[];
  /** What it is read as so far in place of what it is. */
  readAs?: string;
}
