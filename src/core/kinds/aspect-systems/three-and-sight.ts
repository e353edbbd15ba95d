import type { AspectSystem } from './kind';
import { lowSignal } from './low-signal';
import { threeAspect } from './three-aspect';

const [stop, ...others] = threeAspect.aspects;
const [, onSight] = lowSignal.aspects;
const sightLamp = threeAspect.lamps.length;

/** Three aspects, and a lamp that lets a train past a stop on sight when somebody allows it. Common practice, no source. */
export const threeAndSight: AspectSystem = {
  name: 'Three aspects and on sight',
  lamps: [...threeAspect.lamps, { shape: 'slant', colour: 'white', head: 1 }],
  aspects: [
    stop,
    { ...onSight, calls: 'the operator of the post', lit: [sightLamp] },
    ...(others as [(typeof others)[number], ...typeof others]),
  ],
};
