import type { InputKind } from './kind';

/** Every kind of input that rules have. */
export const INPUTS = {
  detector: { of: 'sensor', from: 'track', restrictive: 1 },
  /** How the points of a motor lie: straight, diverging, or between the two. */
  contact: { of: 'motor', from: 'track', restrictive: 2 },
  /** Asks for the points of a motor to be thrown, to one of their positions. */
  request: { of: 'motor', from: 'people', momentary: true, restrictive: 0 },
  /** Holds a signal at stop. */
  hold: { of: 'signal', from: 'people', restrictive: 1 },
  /** Somebody is at an operator post. */
  post: { of: 'post', from: 'people' },
  /** The button at a post that clears a signal for one train. */
  'clear button': { of: 'signal', from: 'people', restrictive: 0 },
  /** A person says from which side a train came into a single-line section. */
  direction: { of: 'traffic section', from: 'people', momentary: true },
  'said occupied': { of: 'block', from: 'people', momentary: true },
  /** The button of a route, by its id, and one that cancels what is set from a signal. */
  'route button': { of: 'signal', from: 'people', momentary: true, restrictive: 0 },
  'cancel button': { of: 'signal', from: 'people', momentary: true, restrictive: 1 },
  /** Automatic working of a signal, or of points, is switched off. */
  'switched off': { of: 'signal', from: 'people' },
  'points switched off': { of: 'motor', from: 'people' },
  /** A pulse that automatic working waits for is given by hand. */
  'start button': { of: 'signal', from: 'people', momentary: true },
  'swap button': { of: 'motor', from: 'people', momentary: true },
  /** A person gives up a run, so that what it holds is free again; by the route. */
  release: { of: 'signal', from: 'people', momentary: true, restrictive: 0 },
  /** Something fails as long as it is on; there is one where somebody looks at what comes of that. */
  fault: { of: 'any', from: 'nobody', restrictive: 0 },
  'said free': { of: 'block', from: 'people', momentary: true, restrictive: 0 },
} as const satisfies Record<string, InputKind>;
export type InputKindId = keyof typeof INPUTS;
