import type { Aspect } from '../kinds';
import type { Controller } from '../system';
import { Plant, type PlantEvent, type PowerOf, type Tolerance } from './plant';

/** What a controller is connected to: it goes on by one scan under the outputs as they are, and sets the inputs. */
export interface Process<Event> {
  /** True when inputs may have changed. */
  step(events: Event[]): boolean;
  setInputs(): void;
}

/** What a sensor says of what it should notice. */
export type Notices = (slot: number, detected: number) => number;
/** What the other side gets of a value of a terminal that fails: rules of an input, the plant of an output. */
export type Puts = (was: number) => number | 'as it was';

const asItIs: Notices = (_, value) => value;
/** How points lie, by its number in the rules. */
export const POSITIONS = ['straight', 'diverging', 'between'] as const;

/** The simulated plant, wired to a controller: detectors and points to its inputs, signals, motors and power to its outputs. */
export class PlantProcess implements Process<PlantEvent> {
  readonly plant: Plant;
  /** Where the rules have what drivers read off each signal, which is stop where its lamps are dark. */
  readonly readSlots: readonly number[];
  private readonly driveSlots: readonly number[];
  private readonly contactSlots: readonly number[];
  private readonly detectors: readonly { slot: number; field: number }[];
  private readonly powers: readonly PowerOf[];
  /** Up to which scan the outputs have been heard. */
  private heard = -1;
  /** Terminals that fail, by their slots: all that do at once, the latest last. */
  private readonly failing = new Map<number, { by: string; puts: (was: number) => number }[]>();
  /** What begins to fail, or ceases to, with the next scan. */
  private struck: { slot: number; by: string; puts: Puts | undefined }[] = [];

  constructor(
    private readonly controller: Controller,
    toleranceOf: (train: number) => Tolerance,
    looksAlways = false,
    private readonly noticed: Notices = asItIs,
  ) {
    const { system } = controller;
    const { partition, readings, terminals } = system;
    this.plant = new Plant(system.plant, partition, readings, toleranceOf, looksAlways);
    this.readSlots = readings.map(
      ({ index }) => (terminals.find('read', index) ?? terminals.find('aspect', index))!.slot,
    );
    this.driveSlots = this.plant.motors.map((_, m) => terminals.slot('drive', m));
    this.contactSlots = this.plant.motors.map((_, m) => terminals.slot('contact', m));
    this.detectors = terminals
      .ofKind('detector')
      .map(({ slot, of }) => ({ slot, field: partition.fields.ofSensor[of]! }));
    this.powers = terminals.ofKind('power').map(({ slot, of }) => ({ section: of, level: () => this.sent(slot) }));
  }

  /** A terminal fails by something from the next scan on, or, without what it then has, does so no longer. */
  fail(slot: number, by: string, puts?: Puts): void {
    this.struck.push({ slot, by, puts });
  }
  private strike(): void {
    for (const { slot, by, puts } of this.struck) {
      const kept = this.sent(slot);
      const left = (this.failing.get(slot) ?? []).filter((one) => one.by !== by);
      if (puts)
        left.push({
          by,
          puts: (was) => {
            const got = puts(was);
            return got === 'as it was' ? kept : got;
          },
        });
      if (left.length > 0) this.failing.set(slot, left);
      else this.failing.delete(slot);
    }
    this.struck = [];
    this.heard = -1;
  }
  private got(slot: number, was: number): number {
    const failing = this.failing.get(slot);
    return failing ? failing.reduce((value, { puts }) => puts(value), was) : was;
  }
  /** What goes out of an output. */
  sent(slot: number): number {
    const was = this.controller.values[slot]!;
    return this.failing.size === 0 ? was : this.got(slot, was);
  }

  /** What drivers read off a signal. */
  readonly readOff = (signal: number): Aspect => this.controller.system.aspects[this.sent(this.readSlots[signal]!)]!;
  /** To where a motor is driven. */
  readonly drives = (motor: number): 'straight' | 'diverging' =>
    this.sent(this.driveSlots[motor]!) ? 'diverging' : 'straight';

  step(events: PlantEvent[]): boolean {
    const { scans } = this.controller;
    this.plant.step(this.drives, this.readOff, events, this.powers, scans !== this.heard);
    this.heard = scans;
    return this.struck.length > 0 || events.length > 0;
  }

  setInputs(): void {
    if (this.struck.length > 0) this.strike();
    const { plant, noticed } = this;
    for (const { slot, field } of this.detectors) this.give(slot, noticed(slot, plant.detected[field]!));
    for (let m = 0; m < this.contactSlots.length; m++)
      this.give(this.contactSlots[m]!, POSITIONS.indexOf(plant.motors[m]!.position));
  }
  private give(slot: number, value: number): void {
    this.controller.set(slot, this.failing.size === 0 ? value : this.got(slot, value));
  }
}
