import { ASPECT_SYSTEM_IDS } from '../../src/core/kinds';
import { CHOOSABLE } from '../../src/core/patterns';
import { type LayoutDocument, signalsOf } from '../../src/core/survey';
import { Draw } from './draw';

/** A layout of which some signals, sensors and points work as somebody chose, one way or two at once, and signals by any system; without some of the ways, so that a seed stays what it was. */
export function withRandomPatterns(
  document: LayoutDocument,
  seed: number,
  without: readonly string[] = [],
): LayoutDocument {
  const draw = new Draw(seed, 8765);
  const d = structuredClone(document);
  const places = { signal: signalsOf(d), sensor: d.sensors, points: [...d.turnouts, ...d.crossings] };
  for (const [at, things] of Object.entries(places)) {
    const own = CHOOSABLE.filter((one) => one.at === at && !without.includes(one.id)).map(({ id }) => id);
    for (const thing of things)
      if (draw.chance(0.5)) thing.patterns = [...new Set([draw.pick(own), draw.pick(own)].slice(draw.below(2)))];
  }
  for (const signal of places.signal) if (draw.chance(0.5)) signal.system = draw.pick(ASPECT_SYSTEM_IDS);
  return d;
}
