import type { BlockId } from '../detection';
import { compileProgram, type Explanation, explain, Interpreter, writeDeclaration } from '../logic';
import { names } from '../patterns';
import { freeOf } from '../simulation';
import { signalsOf, type TurnoutPosition } from '../survey';
import type { Design } from './check-design';
import { standingTrains } from './standing-trains';

/** What a person sets up by hand: an axle set down in some blocks, and how the points lie. */
export interface Trial {
  /** The trains stand where they start, beside what is set down. */
  trains?: boolean;
  occupied: BlockId[];
  /** By the id of the motor. */
  points: Record<string, TurnoutPosition>;
}

const SCAN_MS = 20;
const TRIAL_MS = 1000;

/**
 * Trying it by hand: what every name in the program is once things have settled. First the empty layout is left alone
 * until every memory is free, then axles are set down in the blocks named.
 */
export function tryByHand(design: Design, trial: Trial): Record<string, number> {
  const { document, partition, releaseMs } = design.scheme;
  let now = 0;
  const compiled = compileProgram(design.program);
  const interpreter = new Interpreter(compiled);
  const slot = (name: string) => compiled.slots.get(name)!;
  for (const motor of partition.graph.motors) {
    const lies = trial.points[motor.id] ?? motor.lies;
    interpreter.setInput(slot(names.points(motor)), lies === 'straight' ? 0 : 1);
  }
  /** What only spots tell of counts as occupied until a person says otherwise. */
  const pulse = (inputs: readonly string[]) => {
    const slots = inputs.flatMap((input) => compiled.slots.get(input) ?? []);
    for (const so of [1, 0]) {
      for (const one of slots) interpreter.setInput(one, so);
      interpreter.scan(now);
      now += SCAN_MS;
    }
  };
  const holdMs = Math.max(0, ...document.sensors.map((sensor) => sensor.holdMs));
  pulse(freeOf(design.scheme, []));
  for (const end = holdMs + releaseMs + TRIAL_MS; now < end; now += SCAN_MS) interpreter.scan(now);
  const standing = trial.trains ? standingTrains(design.scheme) : undefined;
  const occupied = new Set<BlockId>([...trial.occupied, ...(standing?.blocks ?? [])]);
  const told = (standing?.told ?? []).flatMap((input) => compiled.slots.get(input) ?? []);
  const tell = (so: 0 | 1) => {
    for (const input of told) interpreter.setInput(input, so);
    interpreter.scan(now);
    now += SCAN_MS;
  };
  /** How trains came in is said before they are seen: one of which nobody knows it could be given a way out behind it. */
  pulse(partition.blocks.filter(({ id }) => occupied.has(id)).map(names.taken));
  tell(1);
  for (const block of partition.blocks) {
    if (!occupied.has(block.id)) continue;
    for (const id of partition.sections[block.section]!.sensors) {
      interpreter.setInput(slot(names.detect({ id })), 1);
    }
  }
  tell(1);
  tell(0);
  for (const end = now + TRIAL_MS; now < end; now += SCAN_MS) interpreter.scan(now);
  return Object.fromEntries(compiled.names.map((name, i) => [name, interpreter.values[i]!]));
}

/** What is shown of what is tried: the aspect of each signal, in the order of the document. */
export interface Tried {
  aspects: string[];
}

/** A design with what is tried on it by hand: what each signal shows, and why. */
export class Bench {
  private values: Record<string, number> = {};

  constructor(readonly design: Design) {}

  try(trial: Trial): Tried {
    this.values = tryByHand(this.design, trial);
    const { aspects } = this.design.scheme;
    const shown = signalsOf(this.design.scheme.document).map(
      (signal) => aspects[this.values[names.shows(signal)]!]!.id,
    );
    return { aspects: shown };
  }
  explain(rule: string): Explanation | undefined {
    return explain(this.design.program, rule, (name) => this.values[name]);
  }
  /** The rules about a thing, as text. */
  textAbout(id: string): string {
    const own = this.design.program.declarations.filter(({ why, expr }) => why?.about === id && expr);
    return own.map((rule) => writeDeclaration(rule, this.design.program.called)).join('\n\n');
  }
}
