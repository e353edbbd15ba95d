import { isChosen, type Pattern } from './pattern';

/** Facing points that are set to lead aside mean stop here: an unexpected diversion is held. Common practice of one school, no source. */
export const divergingHeld: Pattern = {
  id: 'diverging held',
  chosen: { at: 'signal', says: 'Stop while the points lead aside: no train is let go there', makes: 'aspect' },
  proceed: (_, { reading: { signal }, route }) =>
    isChosen(divergingHeld, signal) && route.aside
      ? [{ expr: { op: 'false' }, says: 'a route that diverges is never cleared by it' }]
      : [],
};
