import { MultiDirectedGraph } from 'graphology';
import { expect, test } from 'vitest';
import { compileScheme, type Scheme } from '@/core/patterns';
import { isAgainst, onwardFrom } from '@/core/track';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';
import { smallValley } from '@/demo/small-valley';
import { drawnLayout } from '../../tools/fuzz/drawn-layout';
import { ofSweep } from './sweep';

/** Edges of track, each run one way, as nodes of graphology’s graph; an arc wherever one leads on to another, with the lie of points that it needs. */
function runs({ partition: { graph } }: Scheme): MultiDirectedGraph<{ ends: boolean }, { lies: string[] }> {
  const found = new MultiDirectedGraph<{ ends: boolean }, { lies: string[] }>();
  const node = (edge: number, exit: 0 | 1) => `${edge} ${exit}`;
  for (const { index } of graph.edges)
    for (const exit of [0, 1] as const)
      found.addNode(node(index, exit), { ends: onwardFrom(graph, index, exit).length === 0 });
  for (const { index } of graph.edges)
    for (const exit of [0, 1] as const)
      for (const { edge, enters, over } of onwardFrom(graph, index, exit))
        if (!isAgainst(graph.edges[edge]!, enters))
          found.addEdge(node(index, exit), node(edge, enters === 0 ? 1 : 0), {
            lies: over.map(({ motor, position }) => `${motor} ${position}`),
          });
  return found;
}

/** Where a signal leads, by every simple path: the next signal, or nothing, and how points lie on the way. */
function searched(scheme: Scheme, nth: number): string[] {
  const { readings, partition } = scheme;
  const graph = runs(scheme);
  const edgeOf = (index: number) => partition.pieces[readings[index]!.piece]!.edge;
  const exitOf = (index: number) => readings[index]!.exit;
  /** The first signal on an edge, in the direction of running, beyond a place. */
  const nextOn = (edge: number, exit: 0 | 1, after: number | undefined) =>
    readings
      .filter(({ index }) => edgeOf(index) === edge && exitOf(index) === exit)
      .map(({ index, signal }) => ({ index, along: (exit === 1 ? 1 : -1) * signal.at.tenthUm }))
      .filter(({ along }) => after === undefined || along > after)
      .sort((a, b) => a.along - b.along)[0]?.index;
  const found: string[] = [];
  const told = (lies: readonly string[], end: number | undefined) =>
    found.push(
      `${[...new Set(lies)].sort().join(', ')} to ${end === undefined ? 'the end' : readings[end]!.signal.name}`,
    );
  const follow = (node: string, lies: readonly string[], passed: readonly string[]): void => {
    if (graph.getNodeAttribute(node, 'ends')) told(lies, undefined);
    graph.forEachOutEdge(node, (_, { lies: own }, __, target) => {
      const clash = own.some((lie) => lies.some((one) => one !== lie && one.split(' ')[0] === lie.split(' ')[0]));
      if (clash) return;
      const [edge, exit] = target.split(' ').map(Number) as [number, 0 | 1];
      const next = nextOn(edge, exit, undefined);
      /** Round to where it began it comes to the signals before that, its own one last. */
      if (next !== undefined) told([...lies, ...own], next);
      else if (!passed.includes(target)) follow(target, [...lies, ...own], [...passed, target]);
    });
  };
  const [edge, exit] = [edgeOf(nth), exitOf(nth)];
  const here = (exit === 1 ? 1 : -1) * readings[nth]!.signal.at.tenthUm;
  const beside = nextOn(edge, exit, here);
  if (beside === undefined) follow(`${edge} ${exit}`, [], [`${edge} ${exit}`]);
  else told([], beside);
  return found.sort();
}

/** The same of the routes that rules are made of; those that end where nothing watches, or come round to themselves, end sooner. */
function known({ readings, routesOf }: Scheme, nth: number): string[] | undefined {
  const routes = routesOf[nth]!.map(({ route }) => route);
  if (routes.some(({ ending }) => ending.kind === 'end of detection' || ending.kind === 'circle')) return undefined;
  return routes
    .map(({ conditions, ending }) => {
      const lies = conditions.map(({ motor, position }) => `${motor} ${position}`).sort();
      return `${lies.join(', ')} to ${ending.kind === 'signal' ? readings[ending.signal]!.signal.name : 'the end'}`;
    })
    .sort();
}

test('routes are those that a search through graphology’s graph of the track finds', () => {
  const layouts = [
    ondrelValley(),
    smallValley(),
    ...EXAMPLES.map(exampleLayout),
    ...Array.from({ length: ofSweep(300) }, (_, i) => drawnLayout(i + 1).document),
  ];
  let looked = 0;
  for (const document of layouts) {
    const scheme = compileScheme(document);
    for (const { index, signal } of scheme.readings) {
      const routes = known(scheme, index);
      if (
        routes === undefined ||
        isAgainst(
          scheme.partition.graph.edges[scheme.partition.pieces[scheme.readings[index]!.piece]!.edge]!,
          scheme.readings[index]!.exit === 1 ? 0 : 1,
        )
      )
        continue;
      looked += routes.length;
      expect([document.name, signal.name, routes]).toEqual([document.name, signal.name, searched(scheme, index)]);
    }
  }
  expect(looked).toBeGreaterThan(150);
});
