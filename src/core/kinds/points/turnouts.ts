import type { PointsKind } from './kind';

/** One track that becomes two. Common practice, no source. */
export const turnout: PointsKind = {
  title: 'Turnout',
  ports: ['stem', 'straight', 'diverging'],
  motors: [''],
  ways: [
    { joins: ['stem', 'straight'], lies: ['straight'] },
    { joins: ['stem', 'diverging'], lies: ['diverging'] },
  ],
  fouls: [[['straight'], ['diverging']]],
};

/** Both legs curve away; the one called straight is the one of its own line. */
export const wye: PointsKind = { ...turnout, title: 'Wye' };

/** Both legs curve to the same side; the one called straight is the outer one, that of its own line. */
export const curved: PointsKind = { ...turnout, title: 'Curved turnout' };

/** Two pairs of blades, one behind the other: the first leads to one side, or on to the second. Common practice, no source. */
export const threeWay: PointsKind = {
  title: 'Three-way turnout',
  ports: ['stem', 'straight', 'diverging', 'second'],
  motors: ['a', 'b'],
  ways: [
    { joins: ['stem', 'straight'], lies: ['straight', 'straight'] },
    { joins: ['stem', 'diverging'], lies: ['diverging', undefined] },
    { joins: ['stem', 'second'], lies: ['straight', 'diverging'] },
  ],
  fouls: [
    [['straight'], ['diverging']],
    [['straight'], ['second']],
    [['diverging'], ['second']],
  ],
};
