import { checkDesign } from '@/core/design';
import { type RehearsalEvent, replay } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';

/** Of two ways to say one layout: whether the same is said of it, and the same happens on it. */

/** What is said of a layout with no number in it. */
export function whatIsSaid(document: LayoutDocument) {
  const { findings, scheme } = checkDesign(document);
  const { blocks, sections, graph } = scheme.partition;
  /** A block that nobody named is called after where it begins, which is a number. */
  const nameOf = (name: string) => name.replace(/^(\w+) \d+$/, 'some of $1');
  const called = new Map<string, string>(blocks.map(({ id, name }) => [id, nameOf(name)]));
  return {
    blocks: blocks
      .map(({ name, length, points }) => `${nameOf(name)} ${length} ${points.map((p) => graph.points[p]!.id)}`)
      .sort(),
    sections: sections
      .map(({ blocks: own, sensors }) => `${own.map((b) => nameOf(blocks[b]!.name)).sort()} ${[...sensors].sort()}`)
      .sort(),
    findings: findings
      .map(({ kind, severity, subject }) => `${severity} ${kind}: ${called.get(subject) ?? subject}`)
      .sort(),
  };
}

/** What happens in a minute, with the numbers of things put into names, and no place. */
export function whatHappens(document: LayoutDocument): string[] {
  const said: string[] = [];
  const motors = checkDesign(document).scheme.partition.graph.motors;
  const seen = ({ tick, event }: { tick: number; event: RehearsalEvent }) => {
    const { kind } = event;
    if (kind === 'aspect') {
      const signals = document.features.filter((feature) => feature.kind === 'signal');
      said.push(`${tick} ${(signals[event.signal] as { name: string }).name} ${event.aspect.id}`);
    } else if (kind === 'passes')
      said.push(`${tick} passes ${JSON.stringify({ ...event, at: undefined, place: undefined })}`);
    else if (kind !== 'told') said.push(`${tick} ${kind}`);
  };
  const commands = document.trains.map(({ id }) => ({
    tick: 5,
    command: { kind: 'run' as const, train: id, on: true },
  }));
  for (let i = 0; i < 12 && motors.length > 0; i++) {
    const turnout = [...motors].sort((a, b) => (a.id < b.id ? -1 : 1))[(i * 5) % motors.length]!.id;
    commands.push({
      tick: 200 + 230 * i,
      command: { kind: 'throw', turnout, to: i % 3 === 0 ? 'straight' : 'diverging' } as never,
    });
  }
  replay(compileSystem(document), 5, 3000, commands, seen);
  /** What comes in one tick has no order of its own. */
  return said.sort();
}
