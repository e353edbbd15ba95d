import type { BlockId } from '../detection';
import type { InputKindId } from '../kinds';
import { type Explanation, explain, writeDeclaration } from '../logic';
import type { TenthUm } from '../measure';
import { names } from '../patterns';
import { shownTo, slotOf } from '../simulation';
import { type Facing, signalsOf, type TurnoutPosition } from '../survey';
import { type System, trainParameters } from '../system';
import { type AspectMatrix, aspectMatrix, type Some } from './aspect-matrix';
import type { Design } from './check-design';
import { type FailRow, failDirections } from './fail-direction';
import { FreeLayout } from './free-layout';
import { type RulesAbout, type RulesRead, readRules, rulesAbout } from './rule-desk';
import { type StandingTrains, standingTrains } from './standing-trains';

/** What a person sets up by hand: an axle set down in some blocks, and how the points lie. */
export interface Trial {
  /** The trains stand where they start, beside what is set down. */
  trains?: boolean;
  /** Posts that somebody is at, and signals whose button was pressed there, by id. */
  manned?: readonly string[];
  given?: readonly string[];
  /** Routes that somebody sets, as the ids of signal and route. */
  set?: readonly string[];
  /** One train is put there, and has come the way it faces. */
  moved?: { train: string; line: string; at: TenthUm; facing: Facing };
  occupied: BlockId[];
  /** By the id of the motor. */
  points: Record<string, TurnoutPosition>;
}

/**
 * Trying it by hand: what every name in the program is once things have settled. First the empty layout is left alone
 * until every memory is free, then axles are set down in the blocks named.
 */
export function tryByHand(
  design: Design,
  trial: Trial,
  free: FreeLayout = new FreeLayout(design.system, trial.points),
): Record<string, number> {
  const standing = [trial.trains ? standingTrains(design.system) : undefined, movedTrain(design, trial)];
  const occupied = new Set<BlockId>([...trial.occupied, ...standing.flatMap((one) => one?.blocks ?? [])]);
  const values = free.setDown(
    occupied,
    [
      ...standing.flatMap((one) => (one?.told ?? []).flatMap((telling) => slotOf(design.system, telling) ?? [])),
      ...design.system.commanded.flatMap(({ signal, route, button }) =>
        trial.set?.includes(`${design.system.readings[signal]!.signal.id} ${route}`) ? [button] : [],
      ),
    ],
    new Map([
      ...workedBy(design.system, 'post', design.system.posts, trial.manned),
      ...workedBy(
        design.system,
        'clear button',
        design.system.readings.map(({ signal }) => signal),
        trial.given,
      ),
    ]),
  );
  return Object.fromEntries(free.compiled.names.map((name, i) => [name, values[i]!]));
}

/** Inputs of things, by their ids, that somebody works; those that the rules have. */
const workedBy = (
  { terminals }: System,
  kind: InputKindId,
  things: readonly { id: string }[],
  ids: readonly string[] = [],
): [number, 1][] =>
  things.flatMap(({ id }, of) => {
    const input = ids.includes(id) ? terminals.find(kind, of) : undefined;
    return input ? [[input.slot, 1]] : [];
  });

/** How the one train stands that is put somewhere; undefined where none is, or there is no room for it. */
function movedTrain({ scheme, system }: Design, { moved, points }: Trial): StandingTrains | undefined {
  const { document } = scheme;
  const train = document.trains.find(({ id }) => id === moved?.train);
  const line = document.lines.find(({ id }) => id === moved?.line);
  /** Its line may be gone since, or shorter. */
  if (!moved || !train || !line || moved.at > line.length.tenthUm) return undefined;
  const start = { line: moved.line, at: moved.at, facing: moved.facing };
  const { graph } = scheme.partition;
  const motors = graph.motors.map((motor) => ({ ...motor, lies: points[motor.id] ?? motor.lies }));
  const partition = { ...scheme.partition, graph: { ...graph, motors } };
  const { readings, trafficSections, plant } = system;
  const standing = standingTrains({ partition, readings, trafficSections, plant }, [
    { ...trainParameters(document, train), start },
  ]);
  return standing.body.length > 0 ? standing : undefined;
}

/** What is shown of what is tried: the aspect of each signal, in the order of the document. */
export interface Tried {
  aspects: string[];
  /** What lamps and indicators show, by the id of what they belong to. */
  shows: Record<string, string>;
  /** Motors that are locked, by id. */
  locked: string[];
  /** Of the train that is put somewhere: the blocks that say so, and the track it lies on. */
  moved?: Pick<StandingTrains, 'blocks' | 'body'>;
}

/** A design with what is tried on it by hand: what each signal shows, and why. */
export class Bench {
  private values: Record<string, number> = {};
  private free: { layout: FreeLayout; points: string } | undefined;

  constructor(readonly design: Design) {}

  try(trial: Trial): Tried {
    this.values = tryByHand(this.design, trial, this.freeWith(trial.points));
    const { aspects } = this.design.scheme;
    const shown = signalsOf(this.design.scheme.document).map(
      (signal) => aspects[this.values[names.shows(signal)]!]!.id,
    );
    const shows = shownTo(
      this.design.system,
      this.free!.layout.compiled.names.map((name) => this.values[name]!),
    );
    const { system } = this.design;
    const locked = system.partition.graph.motors.filter((motor) => this.values[names.locked(motor)] === 1);
    return { aspects: shown, shows, locked: locked.map(({ id }) => id), moved: movedTrain(this.design, trial) };
  }
  /** Left alone with the points lying so: worked out anew only when they lie otherwise. */
  private freeWith(points: Trial['points']): FreeLayout {
    const key = JSON.stringify(points);
    if (this.free?.points !== key) this.free = { layout: new FreeLayout(this.design.system, points), points: key };
    return this.free.layout;
  }
  /** What every signal has after each fault. */
  fails(points: Trial['points'], some?: Some): FailRow[] {
    const lies = new Map(this.design.scheme.partition.graph.motors.map(({ id, lies: at }) => [id, at]));
    return failDirections(
      this.design.system,
      this.freeWith(points),
      (motor) => points[motor] ?? lies.get(motor) ?? '',
      some,
    );
  }
  matrix = (points: Trial['points'], some?: Some): AspectMatrix => aspectMatrix(this.freeWith(points), some);

  explain(rule: string): Explanation | undefined {
    return explain(this.design.system.program, rule, (name) => this.values[name]);
  }
  /** The rules about a thing, to be changed; and what a changed text of them does. */
  rulesAbout = (id: string): RulesAbout => rulesAbout(this.design.system.program, id);
  readRules = (id: string, text: string): RulesRead => readRules(this.design.system.program, id, text);
  /** What the rules about a thing are now, by their names as they are written. */
  valuesAbout(id: string): Record<string, string> {
    const { program } = this.design.system;
    const types = new Map(program.declarations.map(({ name, type }) => [name, type]));
    return Object.fromEntries(
      this.rulesAbout(id).rules.map(({ name, written }) => {
        const value = this.values[name];
        return [
          written,
          value === undefined ? '' : (program.enums[types.get(name)!]?.[value] ?? (value ? 'true' : 'false')),
        ];
      }),
    );
  }
  /** The rules about a thing, as text. */
  textAbout(id: string): string {
    const own = this.design.system.program.declarations.filter(({ why, expr }) => why?.about === id && expr);
    return own.map((rule) => writeDeclaration(rule, this.design.system.program.called)).join('\n\n');
  }
}
