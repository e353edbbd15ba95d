import type { Aspect } from '../kinds';
import type { Controller } from '../system';
import { Plant, type PlantEvent, type PowerOf, type Tolerance } from './plant';

/** What a controller is connected to: it goes on by one scan under the outputs as they are, and sets the inputs. */
export interface Process<Event> {
  /** True when inputs may have changed. */
  step(events: Event[]): boolean;
  setInputs(): void;
}

/** What an input reads in place of what the track says: a fault. */
export type ReadAs = (slot: number, value: number) => number;

const asItIs: ReadAs = (_, value) => value;
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

  constructor(
    private readonly controller: Controller,
    toleranceOf: (train: number) => Tolerance,
    looksAlways = false,
    private readonly readAs: ReadAs = asItIs,
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
    this.powers = terminals
      .ofKind('power')
      .map(({ slot, of }) => ({ section: of, level: () => controller.values[slot]! }));
  }

  /** What drivers read off a signal. */
  readonly readOff = (signal: number): Aspect =>
    this.controller.system.aspects[this.controller.values[this.readSlots[signal]!]!]!;
  /** To where a motor is driven. */
  readonly drives = (motor: number): 'straight' | 'diverging' =>
    this.controller.values[this.driveSlots[motor]!] ? 'diverging' : 'straight';

  step(events: PlantEvent[]): boolean {
    const { scans } = this.controller;
    this.plant.step(this.drives, this.readOff, events, this.powers, scans !== this.heard);
    this.heard = scans;
    return events.length > 0;
  }

  setInputs(): void {
    const { controller, plant, readAs } = this;
    for (const { slot, field } of this.detectors) controller.set(slot, readAs(slot, plant.detected[field]!));
    for (let m = 0; m < this.contactSlots.length; m++)
      controller.set(this.contactSlots[m]!, POSITIONS.indexOf(plant.motors[m]!.position));
  }
}
