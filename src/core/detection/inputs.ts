import { sensorKind } from '../kinds';
import type { TenthUm } from '../measure';
import type { LayoutDocument, Modules, Sensor } from '../survey';
import { type Drawing, xOf } from '../track';

/** An input of a module, both counted from 1: “2.5”. */
export const inputName = (module: number, input: number): string => `${module}.${input}`;

/** The module and the input of a sensor, by their numbers; undefined where it has none of a module of that size. */
export function inputOf(input: Sensor['input'], { inputs }: Modules): { module: number; input: number } | undefined {
  const module = input && /^\d{1,3}$/.test(input.module) ? Number(input.module) : 0;
  const number = input?.number ?? 0;
  return module > 0 && number > 0 && number <= inputs ? { module, input: number } : undefined;
}

interface Placed {
  id: string;
  x: TenthUm;
}

/** How far wires run in all from a module that stands where that is least: at the middle one of its sensors. */
export function wireOf(xs: readonly TenthUm[]): TenthUm {
  const sorted = [...xs].sort((a, b) => a - b);
  const middle = sorted[sorted.length >> 1] ?? 0;
  return sorted.reduce((sum, x) => sum + Math.abs(x - middle), 0);
}

/**
 * Sensors in order along the line, cut into as few runs as a size allows such that the wires to the middle of each are shortest in all:
 * runs of neighbours are never worse than any others, so that these are the shortest of all ways to share them out.
 */
export function shareOut(ordered: readonly Placed[], size: number): Placed[][] {
  const count = Math.ceil(ordered.length / size);
  const upTo = [0];
  for (const { x } of ordered) upTo.push(upTo.at(-1)! + x);
  const cost = (from: number, to: number): number => {
    const middle = (from + to) >> 1;
    const { x } = ordered[middle]!;
    return x * (middle - from) - (upTo[middle]! - upTo[from]!) + (upTo[to]! - upTo[middle]!) - x * (to - middle);
  };
  /** The least for the first so many sensors in so many runs, and where the last of these begins. */
  let best = [0, ...ordered.map(() => Number.POSITIVE_INFINITY)];
  const begins: number[][] = [];
  for (let run = 0; run < count; run++) {
    const next = best.map(() => Number.POSITIVE_INFINITY);
    const from = best.map(() => 0);
    for (let to = 1; to <= ordered.length; to++)
      for (let start = Math.max(0, to - size); start < to; start++) {
        const all = best[start]! + cost(start, to);
        if (all < next[to]!) [next[to], from[to]] = [all, start];
      }
    begins.push(from);
    best = next;
  }
  const runs: Placed[][] = [];
  let to = ordered.length;
  for (const from of begins.reverse()) {
    runs.unshift(ordered.slice(from[to]!, to));
    to = from[to]!;
  }
  return runs;
}

/** The inputs of all sensors by id, and how far their wires run along the line in all. */
export interface GivenInputs {
  inputs: Map<string, string>;
  wire: TenthUm;
}

/**
 * Gives an input to every sensor but timers, which take none. Those that have one keep it, unless all are given anew. New ones go to the free input of the module that is
 * nearest along the line, and to modules of their own where none is free; each new module keeps its spare inputs for what comes later.
 */
export function giveInputs(
  { sensors }: Pick<LayoutDocument, 'sensors'>,
  drawing: Drawing,
  modules: Modules,
  anew = false,
): GivenInputs {
  const place = new Map(
    sensors.map(({ id, anchor }) => [id, xOf(drawing.lines.get(anchor.line)!, anchor.at.tenthUm)] as const),
  );
  const byX = (a: Placed, b: Placed) => a.x - b.x || (a.id < b.id ? -1 : 1);
  const inputs = new Map<string, string>();
  const taken = new Map<string, string>();
  const members = new Map<number, TenthUm[]>();
  const take = (id: string, module: number, input: number) => {
    inputs.set(id, inputName(module, input));
    taken.set(inputName(module, input), id);
    members.set(module, [...(members.get(module) ?? []), place.get(id)!]);
  };
  const fresh: Placed[] = [];
  for (const { id, input, kind } of sensors) {
    const has = anew ? undefined : inputOf(input, modules);
    if (sensorKind(kind).tells === 'for a time') continue;
    if (has && !taken.has(inputName(has.module, has.input))) take(id, has.module, has.input);
    else fresh.push({ id, x: place.get(id)! });
  }
  fresh.sort(byX);
  const left: Placed[] = [];
  for (const one of fresh) {
    const free = [...members.keys()].flatMap((module) => {
      for (let input = 1; input <= modules.inputs; input++)
        if (!taken.has(inputName(module, input))) {
          const off = Math.min(...members.get(module)!.map((x) => Math.abs(x - one.x)));
          return [{ module, input, off }];
        }
      return [];
    });
    free.sort((a, b) => a.off - b.off || a.module - b.module);
    if (free[0]) take(one.id, free[0].module, free[0].input);
    else left.push(one);
  }
  let module = Math.max(0, ...members.keys());
  for (const run of left.length > 0 ? shareOut(left, Math.max(1, modules.inputs - modules.spare)) : []) {
    module += 1;
    run.forEach(({ id }, i) => {
      take(id, module, i + 1);
    });
  }
  return { inputs, wire: [...members.values()].reduce((sum, xs) => sum + wireOf(xs), 0) };
}
