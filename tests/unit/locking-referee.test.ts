import { describe, expect, test } from 'vitest';
import { checkDesign, type Design } from '@/core/design';
import { pieceAt } from '@/core/detection';
import { routeConflicts, routesIn } from '@/core/locking';
import { type EdgeEnd, isAgainst, type Over, onwardFrom } from '@/core/track';
import { planned } from '@/demo/plans';
import { drawnLayout } from '../../tools/fuzz/drawn-layout';
import { JUNCTION, LOOP } from './locking-plans';
import { ofSweep } from './sweep';

/** What a train covers on a route, found by walking edge by edge and not by the pieces that routes are made of. */
interface Walked {
  signal: number;
  lies: Map<number, Over['position']>;
  /** Centimetres of edges. */
  cells: Set<string>;
  blocks: Set<number>;
}
const CM = 100_000;

/** Every way from a signal to the next one, or to the end of the track. */
function walksFrom({ scheme: { partition, readings } }: Design, nth: number): Walked[] {
  const { graph } = partition;
  const { signal, rear } = readings[nth]!;
  const found: Walked[] = [];
  const walk = (edge: number, exit: EdgeEnd, from: number, so: Walked, passed: readonly string[]): void => {
    const { line, from: low, to: high } = graph.edges[edge]!;
    const sign = exit === 1 ? 1 : -1;
    const next = readings
      .filter((one) => one.signal.line === line && one.signal.governs === (exit === 1 ? 'up' : 'down'))
      .map((one) => one.signal.at.tenthUm)
      .filter((at) => at >= low && at <= high && (at - from) * sign > 0)
      .sort((a, b) => (a - b) * sign)[0];
    const to = next ?? (exit === 1 ? high : low);
    const cells = new Set(so.cells);
    const blocks = new Set(so.blocks);
    for (let at = Math.min(from, to) + CM / 2; at < Math.max(from, to); at += CM) {
      const { block } = pieceAt(partition, line, at, 'up');
      /** In the block in rear the train stands already, and holds it. */
      if (block !== rear) cells.add(`${line} ${Math.floor(at / CM)}`);
      blocks.add(block);
    }
    const here = { ...so, cells, blocks };
    const on = next === undefined ? onwardFrom(graph, edge, exit) : [];
    if (on.length === 0) found.push(here);
    for (const { edge: beyond, enters, over } of on) {
      if (over.some(({ motor, position }) => (so.lies.get(motor) ?? position) !== position)) continue;
      if (isAgainst(graph.edges[beyond]!, enters) || passed.includes(`${beyond} ${enters}`)) continue;
      const lies = new Map([...so.lies, ...over.map(({ motor, position }) => [motor, position] as const)]);
      const { from: start, to: end } = graph.edges[beyond]!;
      walk(beyond, enters === 0 ? 1 : 0, enters === 0 ? start : end, { ...here, lies }, [
        ...passed,
        `${beyond} ${enters}`,
      ]);
    }
  };
  const at = signal.at.tenthUm;
  const up = signal.governs === 'up';
  const edge = graph.edges.find(
    (one) => one.line === signal.line && at >= one.from && at <= one.to && (up ? at < one.to : at > one.from),
  );
  if (edge && !isAgainst(edge, up ? 0 : 1))
    walk(edge.index, up ? 1 : 0, at, { signal: nth, lies: new Map(), cells: new Set(), blocks: new Set() }, []);
  return found;
}

const lines = (design: Design, stretches: readonly { edge: number; from: number; to: number }[]): string[] =>
  stretches.flatMap(({ edge, from, to }) => {
    const { line } = design.scheme.partition.graph.edges[edge]!;
    const cells: string[] = [];
    for (let cell = Math.floor(from / CM); cell * CM + CM / 2 < to; cell++)
      if (cell * CM + CM / 2 > from) cells.push(`${line} ${cell}`);
    return cells;
  });

/** Whether two walks need the same track, track that fouls, or the same points otherwise. */
function clash(design: Design, one: Walked, two: Walked): boolean {
  for (const [motor, position] of one.lies) if ((two.lies.get(motor) ?? position) !== position) return true;
  for (const cell of one.cells) if (two.cells.has(cell)) return true;
  return design.scheme.partition.graph.fouling.some(({ a, b }) => {
    const [first, second] = [lines(design, a), lines(design, b)];
    const lies = (walked: Walked, on: string[]) => on.some((cell) => walked.cells.has(cell));
    return (lies(one, first) && lies(two, second)) || (lies(one, second) && lies(two, first));
  });
}

/** A walk belongs to a route of its signal that needs the same points. */
const keyOf = (signal: number, lies: Iterable<readonly [number, string]>): string =>
  `${signal} ${[...lies].map(([motor, position]) => `${motor}${position}`).sort()}`;

function check(design: Design): { pairs: number; listed: number } {
  const routes = routesIn(design.scheme);
  const keys = routes.map(({ reading, route }) =>
    keyOf(
      reading.index,
      route.conditions.map(({ motor, position }) => [motor, position] as const),
    ),
  );
  const walks = design.scheme.readings.flatMap((_, nth) => walksFrom(design, nth));
  const conflicts = routeConflicts(design.scheme);
  const listed = new Set(conflicts.map(({ one, two }) => `${one} ${two}`));
  let pairs = 0;
  walks.forEach((one, i) => {
    const mine = keys.indexOf(keyOf(one.signal, one.lies));
    for (const two of walks.slice(i + 1)) {
      const theirs = keys.indexOf(keyOf(two.signal, two.lies));
      /** A route into track that nothing watches ends where that begins: the rest of it is nobody's. */
      const leaves = [mine, theirs].some((nth) => routes[nth]?.route.ending.kind === 'end of detection');
      if (mine < 0 || theirs < 0 || leaves || one.signal === two.signal || !clash(design, one, two)) continue;
      pairs += 1;
      const pair = `${Math.min(mine, theirs)} ${Math.max(mine, theirs)}`;
      const name = (nth: number) => `${routes[nth]!.reading.signal.name} → ${routes[nth]!.to}`;
      const who = `${design.scheme.document.name}: ${name(mine)}, ${name(theirs)}`;
      expect([who, listed.has(pair)]).toEqual([who, true]);
    }
  });
  for (const { reason, where, motors, block } of conflicts) {
    if (reason === 'points') expect(motors!.one.position === motors!.two.position).toBe(false);
    else if (reason === 'block') expect(block).toBeDefined();
    else expect(where.some(({ from, to }) => to > from)).toBe(true);
  }
  return { pairs, listed: conflicts.length };
}

describe('routes that must not be cleared at once', () => {
  test.each([
    ['loop', LOOP],
    ['junction', JUNCTION],
  ])('%s', (name, text) => {
    const { pairs, listed } = check(checkDesign(planned({ name, text })));
    expect(pairs).toBeGreaterThan(0);
    expect(listed).toBe(pairs);
  });
  test('layouts drawn by chance: no two that clash are not listed', () => {
    let [pairs, listed] = [0, 0];
    for (let seed = 1; seed <= ofSweep(300); seed++) {
      const found = check(checkDesign(drawnLayout(seed).document));
      pairs += found.pairs;
      listed += found.listed;
    }
    expect(pairs).toBeGreaterThan(50);
    expect(listed).toBeGreaterThanOrEqual(pairs);
  });
});
