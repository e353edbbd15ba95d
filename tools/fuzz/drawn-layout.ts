import { type Fault, type FaultId, faultsOf, withFault } from '../../src/core/faults';
import { STANDARD_SWITCHES, SWITCH_IDS, type Switch } from '../../src/core/proof';
import type { LayoutDocument } from '../../src/core/survey';
import { compileSystem, type System } from '../../src/core/system';
import { Draw } from './draw';
import { FAULTS_DRAWN, KIND_TABLES, type Put, wire } from './kind-tables';
import { randomLayout } from './random-layout';
import { randomPoints } from './random-points';
import { randomReverseLoop } from './reverse-loop';

/** A layout with something of many tables of kinds on it. */
export interface DrawnLayout {
  document: LayoutDocument;
  /** What came onto it: of which table and kind, and the same layout without it. */
  kinds: { of: string; id: string; without(): LayoutDocument }[];
  /** What people do. */
  on: ReadonlySet<Switch>;
  /** What fails now and then, if anything does. */
  fault: Fault | undefined;
}

/** Its System, with what may fail as a part of it. */
export const systemOf = ({ document, fault }: DrawnLayout): System =>
  fault ? withFault(compileSystem(document), fault) : compileSystem(document);

/** What a layout is before anything of the tables comes onto it: as often as it stands here. */
const GROUNDS: readonly ((seed: number) => LayoutDocument)[] = [
  randomLayout,
  randomLayout,
  randomLayout,
  randomPoints,
  randomReverseLoop,
];

/** Draws from every table of kinds; the same seed gives the same layout as long as the tables are the same. */
export function drawnLayout(seed: number): DrawnLayout {
  const draw = new Draw(seed, 6161);
  const ground = draw.pick(GROUNDS)(seed);
  const failing = draw.chance(FAULTS_DRAWN.chance) ? draw.pick(FAULTS_DRAWN.ids) : undefined;
  const puts: { of: string; id: string; put: Put }[] = [];
  for (const { of, ids, chance, draw: drawOne } of KIND_TABLES) {
    if (!draw.chance(chance)) continue;
    /** Now and then they come in turn, so that none is left out of many layouts. */
    const id = draw.chance(0.5) ? draw.pick(ids) : ids[seed % ids.length]!;
    const put = drawOne(draw, ground, id);
    if (put) puts.push({ of, id, put });
  }
  const wiring = failing && wire(draw, ground);
  const built = (chosen: typeof puts) => {
    let document = structuredClone(ground);
    for (const { put } of chosen) {
      put(document);
      document = structuredClone(document);
    }
    wiring?.(document);
    return document;
  };
  const on = new Set<Switch>(SWITCH_IDS.filter((id) => draw.chance(STANDARD_SWITCHES.has(id) ? 0.85 : 0.3)));
  const document = built(puts);
  return {
    document,
    kinds: puts.map((one) => ({ of: one.of, id: one.id, without: () => built(puts.filter((other) => other !== one)) })),
    on,
    fault: failing && oneThatFails(draw, document, failing),
  };
}

function oneThatFails(draw: Draw, document: LayoutDocument, fault: FaultId): Fault | undefined {
  const group = faultsOf(compileSystem(document)).find((one) => one.fault === fault);
  return group && { fault, thing: draw.pick(group.things).id };
}
