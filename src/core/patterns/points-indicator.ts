import { is, name } from '../logic';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';

/** Beside points it is shown how they lie, as they report it and not as they were sent. */
export const pointsIndicator: Pattern = {
  id: 'points indicator',
  chosen: { at: 'points', says: 'An indicator beside them shows how they lie', makes: 'indicator', wired: true },
  indicator({ document, partition }, motor) {
    const { id } = partition.graph.points[motor.points]!;
    const points = [...document.turnouts, ...document.crossings].find((one) => one.id === id);
    if (!isChosen(pointsIndicator, points)) return [];
    return (['straight', 'diverging'] as const).map((shows) => ({
      shows,
      when: is(name(names.points(motor)), shows),
    }));
  },
};
