import type { BlockId } from '../detection';
import { type Compiled, type Evaluator, longestTimerMs } from '../logic';
import { freeOf } from '../simulation';
import type { TurnoutPosition } from '../survey';
import { Controller, type System } from '../system';
import { cameIn } from './came-in';

/** Inputs, by their places among the values, that stay as they are, whatever stands on the track. */
export type Put = ReadonlyMap<number, 0 | 1>;

const SCAN_MS = 20;
const TRIAL_MS = 1000;

/**
 * A layout left alone until every memory is free, on which things can be set down again and again: each time from the same
 * moment on.
 */
export class FreeLayout {
  readonly compiled: Compiled;
  private readonly controller: Controller;
  private readonly rules: Evaluator;
  private readonly kept: ReturnType<Evaluator['keep']>;
  private readonly since: number;
  private readonly atPowerUp: ReturnType<Evaluator['keep']>;
  private readonly settlesIn: number;
  private now = 0;
  private readonly inputsOf: ReadonlyMap<BlockId, { cameIn: number[]; seen: number[] }>;

  constructor(
    readonly system: System,
    /** How points lie, by the id of their motor; the others as they lie at the start. */
    points: Readonly<Record<string, TurnoutPosition>>,
  ) {
    const { partition, sensors, terminals, program } = system;
    const numbers = new Map(sensors.map(({ id }, s) => [id, terminals.slot('detector', s)]));
    this.inputsOf = new Map(
      partition.blocks.map(({ id, index, section }) => {
        const seen = partition.sections[section]!.sensors.map((sensor) => numbers.get(sensor)!);
        return [id, { cameIn: cameIn(system, index).map(({ slot }) => slot), seen }];
      }),
    );
    this.controller = new Controller(system);
    this.rules = this.controller.evaluator;
    this.compiled = system.compiled;
    for (const { id, index, lies } of partition.graph.motors)
      this.rules.setInput(terminals.slot('contact', index), (points[id] ?? lies) === 'straight' ? 0 : 1);
    const sent = partition.graph.motors.flatMap(({ id, index, lies }) => {
      const to = points[id] ?? lies;
      return to === lies ? [] : (terminals.find('request', index, to)?.slot ?? []);
    });
    this.atPowerUp = this.rules.keep();
    /** What only spots tell of counts as occupied until a person says otherwise. */
    this.pulse(freeOf(system, []));
    const holdMs = Math.max(0, ...sensors.map((sensor) => sensor.holdMs));
    this.settlesIn = holdMs + longestTimerMs(program) + TRIAL_MS;
    this.settle(this.settlesIn);
    /** Whatever goes by where points were sent, and not by how they lie. */
    this.pulse(sent);
    this.settle(this.now + this.settlesIn);
    this.kept = this.rules.keep();
    this.since = this.now;
  }

  private scan(): void {
    this.controller.scan(this.now);
    this.now += SCAN_MS;
  }
  private settle(until: number): void {
    while (this.now < until) {
      this.scan();
      if (this.rules.restsUntil > until) this.now = until;
    }
  }
  private set(inputs: readonly number[], so: 0 | 1): void {
    for (const slot of inputs) this.rules.setInput(slot, so);
  }
  /** For a moment. */
  private pulse(inputs: readonly number[]): void {
    if (inputs.length === 0) return;
    for (const so of [1, 0] as const) {
      this.set(inputs, so);
      this.scan();
    }
  }

  /**
   * What every name of the program is once axles have been set down in blocks, and things have settled. How trains came in is
   * said before they are seen: one of which nobody knows it could be given a way out behind it. `given`: pulses by hand, once they have settled.
   */
  setDown(
    occupied: ReadonlySet<BlockId>,
    told: readonly number[],
    put: Put = new Map(),
    given: readonly number[] = [],
  ): Int32Array {
    this.rules.goBackTo(this.kept);
    this.now = this.since;
    const inputs = [...occupied].flatMap((block) => this.inputsOf.get(block) ?? []);
    this.pulse(inputs.flatMap((input) => input.cameIn));
    this.set(told, 1);
    this.scan();
    for (const { seen } of inputs) this.set(seen, 1);
    this.fix(put);
    this.scan();
    this.fix(put);
    this.set(told, 0);
    this.scan();
    this.settle(this.now + TRIAL_MS);
    if (given.length > 0) {
      this.pulse(given);
      this.settle(this.now + TRIAL_MS);
    }
    return this.rules.values;
  }

  /** What every name is after `setDown` once all timers have ended too, and inputs have gone wrong, if some do. */
  inTheEnd(put: Put = new Map()): Int32Array {
    this.settle(this.now + this.settlesIn);
    this.fix(put);
    this.settle(this.now + this.settlesIn);
    return this.rules.values;
  }

  /**
   * Power comes on while axles stand in blocks and nobody says anything: what every name is after each scan, until things have
   * settled.
   */
  powerUp(occupied: ReadonlySet<BlockId>, each: (values: Int32Array) => void): void {
    this.rules.goBackTo(this.atPowerUp);
    this.now = 0;
    for (const block of occupied) this.set(this.inputsOf.get(block)?.seen ?? [], 1);
    while (this.now < this.settlesIn) {
      this.scan();
      each(this.rules.values);
      if (this.rules.restsUntil > this.settlesIn) break;
    }
  }

  private fix(put: Put): void {
    for (const [input, so] of put) this.set([input], so);
    if (put.size > 0) this.scan();
  }
}
