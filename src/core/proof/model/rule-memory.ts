import { POWER_LEVELS } from '../../kinds';
import { emitWasm, layoutOf, previousSlots, startWasm, type WasmProgram } from '../../logic';
import { type Field, Packing } from '../engine/packing';
import { timerKinds } from './byte-code';
import type { Standing, Wiring } from './wiring';

/** Turnout states: lies straight, lies diverging, moves to straight, moves to diverging. */
export const MOVING = 2;
const TURNOUT_STATES = 4;
const BETWEEN = 2;

/** The emitted program with the means to pack a state and to go back to one. */
type Machine = WasmProgram & { pack(): void; unpack(): void };

/**
 * The memory in which a rule program runs, and what it meets the plant by: how turnouts lie, which sections are cut off, and what
 * sensors see. What of it belongs to a state is packed.
 */
export class RuleMemory {
  readonly machine: Machine;
  readonly memory: Int32Array;
  /** Where `pack` writes, and from where `unpack` reads. */
  readonly packed: Int32Array;
  readonly origin: Int32Array;
  /** Where in memory the program’s parts begin. */
  readonly at: { before: number; state: number; mayEnd: number };
  /** Slots that some PREVIOUS reads. */
  readonly previous: number[];
  readonly turnouts: Int32Array;
  /** What sensors see, or would see if they were fed, as bits. */
  readonly seen: Int32Array;
  readonly fields: {
    turnouts: Field[];
    dead: Field[];
    hands: Field[];
    timers: { last: Field; counts: Field; ton: boolean }[];
  };
  /** Of each output for power, whether its section is cut off; and of each sensor, which feeds it, if one does. */
  private readonly dead: Int32Array;
  private readonly fedBy: number[];
  /** Sensors that want power, and where memory has what each would see with it. */
  private readonly under: number[];
  private readonly underAt: number;

  constructor(
    private readonly wiring: Wiring,
    standing: Standing,
  ) {
    const { compiled, program, drives } = wiring;
    const count = drives.length;
    this.previous = previousSlots(compiled);
    const layout = layoutOf(compiled);
    this.at = { before: layout.before / 4, state: layout.state / 4, mayEnd: layout.mayEnd / 4 };
    const turnoutsAt = layout.end / 4;
    const deadAt = turnoutsAt + count;
    this.fedBy = wiring.detects.map((_, d) => wiring.powers.findIndex(({ detects }) => detects.includes(d)));
    this.underAt = deadAt + wiring.powers.length;
    this.under = this.fedBy.flatMap((power, d) => (power >= 0 ? [d] : []));

    const packing = new Packing();
    const kinds = timerKinds(compiled);
    const turnoutFields = drives.map((_, t) => packing.field(turnoutsAt + t, TURNOUT_STATES));
    for (const slot of wiring.detects) packing.field(slot, 2);
    const deadFields = wiring.powers.map((_, p) => packing.field(deadAt + p, 2));
    this.under.forEach((_, i) => {
      packing.field(this.underAt + i, 2);
    });
    /** When a timer began to count is left out: it may end at any moment. */
    const since = new Set(compiled.timers.map((at) => at + 1));
    const remembered = [...compiled.state.keys()].map((at) =>
      since.has(at) ? undefined : packing.field(this.at.state + at, 2),
    );
    const types = new Map(program.declarations.map(({ name, type }) => [compiled.slots.get(name)!, type]));
    for (const slot of this.previous)
      packing.field(this.at.before + slot, program.enums[types.get(slot)!]?.length ?? 2);
    this.fields = {
      turnouts: turnoutFields,
      dead: deadFields,
      hands: wiring.hands.map(({ slot }) => packing.field(slot, 2)),
      timers: compiled.timers.map((at) => ({
        last: remembered[at]!,
        counts: remembered[at + 2]!,
        ton: kinds.get(at)!.ton,
      })),
    };

    const packedAt = this.underAt + this.under.length;
    const originAt = packedAt + packing.words;
    const functions = packing.functions(packedAt, originAt);
    const bytes = 4 * (originAt + packing.words) - layout.end;
    this.machine = startWasm<Machine>(emitWasm(compiled, { untimed: true, beside: { functions, bytes } }));
    this.memory = new Int32Array(this.machine.memory.buffer);
    const part = (from: number, length: number) => this.memory.subarray(from, from + length);
    this.turnouts = part(turnoutsAt, count);
    this.dead = part(deadAt, wiring.powers.length);
    this.packed = part(packedAt, packing.words);
    this.origin = part(originAt, packing.words);
    this.seen = new Int32Array(Math.max(1, Math.ceil(wiring.detects.length / 32)));
    this.begin(standing);
  }

  /** Takes over what the program holds in some moment. */
  private begin(standing: Standing): void {
    const { memory, wiring } = this;
    memory.set(standing.values, 0);
    memory.set(standing.before, this.at.before);
    memory.set(standing.state, this.at.state);
    for (const [at, { ton, ms }] of timerKinds(wiring.compiled)) {
      const word = this.at.state + at;
      if (ton) memory[word + 2] = memory[word] === 1 && standing.nowMs - memory[word + 1]! >= ms ? 1 : 0;
      memory[word + 1] = 0;
    }
    this.turnouts.set(standing.turnouts);
    this.dead.set(standing.dead);
    wiring.detects.forEach((slot, d) => {
      if (memory[slot]) this.seen[d >> 5]! |= 1 << (d & 31);
    });
    this.keepUnder();
  }

  /** Detectors see so from now on. */
  see(seen: Int32Array): void {
    this.seen.set(seen);
    this.keepUnder();
    this.writeSeen();
  }
  /** What a sensor would see if its section were fed is part of the state: it does see it as soon as that has power again. */
  private keepUnder(): void {
    for (let i = 0; i < this.under.length; i++) {
      const d = this.under[i]!;
      this.memory[this.underAt + i] = (this.seen[d >> 5]! >> (d & 31)) & 1;
    }
  }
  /** A sensor in a section that is cut off sees nothing. */
  private writeSeen(): void {
    const { memory, seen, dead, fedBy } = this;
    const { detects } = this.wiring;
    for (let d = 0; d < detects.length; d++)
      memory[detects[d]!] = dead[fedBy[d]!] === 1 ? 0 : (seen[d >> 5]! >> (d & 31)) & 1;
  }

  writePoints(): void {
    const { memory, turnouts, wiring } = this;
    for (let t = 0; t < turnouts.length; t++)
      memory[wiring.points[t]!] = turnouts[t]! >= MOVING ? BETWEEN : turnouts[t]!;
  }

  /** Sections are cut off, or fed again, as rules say, and sensors see so; true when any is. */
  cutOff(): boolean {
    const { memory, dead, wiring } = this;
    let changed = false;
    for (let p = 0; p < dead.length; p++) {
      const now = POWER_LEVELS[memory[wiring.powers[p]!.slot]!]!.feeds ? 0 : 1;
      if (dead[p] === now) continue;
      dead[p] = now;
      changed = true;
    }
    if (changed) this.writeSeen();
    return changed;
  }

  isLocked(motor: number): boolean {
    const locks = this.wiring.refusedBy[motor]!;
    for (let i = 0; i < locks.length; i++) if (this.memory[locks[i]!] === 0) return false;
    return locks.length > 0;
  }
}
