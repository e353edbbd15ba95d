import type { Aspect } from '../../kinds';
import type { HazardId } from '../../simulation';
import type { TurnoutPosition } from '../../survey';
import type { System, TerminalKind } from '../../system';
import type { Motor } from '../../track';
import type { PackingMachine } from '../engine/packing';
import { BITS_OF_DEED, BITS_OF_RULES } from '../hazards/hazard-bits';
import { SignalHazards } from '../hazards/signal-hazards';
import { choiceOf, indexOf, Listing, moveOf, movesUnder, Pairs } from '../moves';
import { STANDARD_SWITCHES, type Switch } from '../switches';
import { committedCarried, countedOn, STOOD } from './committed';
import { Drivers } from './drivers';
import { endsIn, hazardsIn, Meetings, orderIn } from './meetings';
import { STARTS_AT } from './placement';
import { type Present, plantMachine, presentIn } from './plant-state';
import { meet, type ProofTrain, proofTrainsOf, type Said } from './proof-train';
import { MOVING } from './rule-memory';
import { NOTHING } from './rule-steps';
import { Rules } from './rules';
import { type Sight, sightOf } from './sight';
import { standingStart } from './standing-start';
import { APART, twoOf } from './touch';
import { standingOf, wiringOf } from './wiring';

/**
 * Plant and rule program as one machine that takes one small step at a time (`moves/`). After each the program scans until it
 * settles (`rules.ts`). Nothing has a duration: a train may wait anywhere, and a timer may end at any moment. A state is where the
 * trains are and the number of a settled state of the rules. The file is long because every move changes the one state that this class holds;
 * what can stand by itself (rules, drivers, wiring, placements) does.
 */
export class ProofModel {
  readonly trains: ProofTrain[];
  readonly rules: Rules;
  /** Trains that could not be put on the track, and why: nothing is said of them. */
  readonly notPlaced: string[];
  /** What is wrong with how the trains stand before anything moves. */
  readonly startHazards: HazardId[];
  readonly present: Present;
  /** The motors of all points: what is called a turnout here is one of them, by number. */
  readonly motors: readonly Motor[];
  /** Hazards of the step taken last, one bit each in the order of HAZARD_IDS; of the start itself before any step. */
  hazards = 0;
  /** The step taken last led to a hazard after which nothing more can be told. */
  ended = false;
  /** How the rules took that step (`Effects`); below 0 when they had nothing to do with it. */
  effect = NOTHING;
  private readonly machine: PackingMachine;
  /** What is packed: `at`, `committed`, `orders`, and last the state of the rules. */
  private readonly plant: Int32Array;
  /** What signals show, by one number of the rules: in the state last gone to. */
  private displayed = 0;
  private readonly drivers: Drivers;
  private readonly sights: Sight[];
  /** For each pair of trains (`twoOf`). */
  private readonly meetings: Meetings[];
  /** The detectors that see something, as bits. */
  private readonly seen: Int32Array;
  private readonly askSlots: [number, number][];
  private readonly listing: Listing;
  private readonly inOneScan: boolean;
  /** Some section can be cut off. */
  private readonly powers: boolean;
  readonly ofSignals: SignalHazards;
  /** Codes of two things within one scan. */
  readonly pairs = new Pairs();

  constructor(
    readonly system: System,
    readonly on: ReadonlySet<Switch> = STANDARD_SWITCHES,
    /** Nobody touches anything once trains that wait for a pulse have had one: trains and automatic working alone. */
    readonly handsOff = false,
  ) {
    this.listing = new Listing(movesUnder(on, handsOff));
    this.inOneScan = on.has('one scan');
    this.powers = system.terminals.ofKind('power').length > 0;
    const { start, hazards } = standingStart(system, { pulsed: handsOff });
    this.startHazards = hazards;
    this.notPlaced = start.plant.notPlaced.map(({ problem }) => problem);
    this.motors = this.system.partition.graph.motors;
    this.rules = new Rules(wiringOf(system, on.has('hold'), on.has('automatic')), standingOf(start));
    const { rules } = this;
    this.trains = proofTrainsOf(start, on.has('turn back'), on.has('false pulses'));
    this.ofSignals = new SignalHazards(this.system, rules.displays, this.trains);
    const ask = (motor: number, to: TurnoutPosition) => system.terminals.slot('request', motor, to);
    this.askSlots = this.motors.map((_, m) => [ask(m, 'straight'), ask(m, 'diverging')]);
    this.seen = new Int32Array(rules.inputWords);
    const words = { inputs: rules.inputWords, things: rules.independence.thingWords };
    this.sights = this.trains.map((train) => sightOf(train, system, words));
    const trains = this.trains.length;
    this.meetings = this.trains.flatMap((second, t) =>
      this.trains.slice(0, t).map((first) => new Meetings(first, second)),
    );
    this.machine = plantMachine(this.trains, on.has('lift'));
    this.plant = this.machine.fields;
    this.present = presentIn(this.plant, trains, this.motors.length);
    const stopsIn = system.aspects.map((aspect) => aspect.stopsIn);
    this.drivers = new Drivers(this.trains, this.sights, this.present, rules.displays, stopsIn);

    this.ruleState = rules.start;
    this.readTurnouts();
    for (let t = 0; t < trains; t++) this.lookAround(t);
    this.settle(false);
  }

  get ruleState(): number {
    return this.plant[this.plant.length - 1]!;
  }
  private set ruleState(state: number) {
    this.plant[this.plant.length - 1] = state;
  }

  /** 32-bit words of a packed state. */
  get words(): number {
    return this.machine.packed.length;
  }

  /** The state as it now stands, packed; the same array at every call. */
  pack(): Int32Array {
    this.machine.pack();
    return this.machine.packed;
  }

  /** Goes to a packed state. */
  unpack(from: Int32Array): void {
    this.machine.origin.set(from);
    this.back();
    this.displayed = this.rules.displayedIn(this.ruleState);
  }

  /** Back to the state last unpacked, after a step from it. */
  back(): void {
    this.backFromKnown();
    this.readTurnouts();
  }
  /** The same after a step of which it was known where it leads: it has not touched how turnouts lie. */
  backFromKnown(): void {
    this.machine.unpack();
  }
  private readTurnouts(): void {
    this.rules.readTurnouts(this.ruleState, this.present.turnouts);
  }

  /** What a signal shows in the state last gone to. */
  aspect(signal: number): Aspect {
    return this.system.aspects[this.rules.displays.thing(this.displayed, signal)]!;
  }
  isAtStop(signal: number): boolean {
    return !this.rules.displays.isClear(this.displayed, signal);
  }

  /** What latches, edges and timers hold now, and what PREVIOUS would read. */
  memoryNow(): { state: Int32Array; before: Int32Array } {
    return this.rules.memoryIn(this.ruleState);
  }
  /** The value of a name of the program in the present state. */
  valueOf(name: string): number {
    return this.rules.valuesIn(this.ruleState)[this.rules.wiring.compiled.slots.get(name)!]!;
  }

  isOn(kind: TerminalKind, of: number): boolean {
    return this.rules.valuesIn(this.ruleState)[this.system.terminals.slot(kind, of)] === 1;
  }

  isHeld(hand: number): boolean {
    return this.rules.isHeld(this.ruleState, hand);
  }
  counts(timer: number): boolean {
    return this.rules.counts(this.ruleState, timer);
  }
  isOff(train: number): boolean {
    return this.present.at[train] === this.trains[train]!.placements.length;
  }
  /** Every single thing that can be done in the present state (`Listing`), and how many there are. */
  moves(into: number[], toRules: boolean): number {
    return this.listing.write(this, into, toRules);
  }

  getsSomewhere(code: number): boolean {
    return moveOf(code).getsSomewhere?.(this, indexOf(code), choiceOf(code)) ?? false;
  }
  /** Trains do not turn back, and some train stands at the end of its line, where nothing else is left to do. */
  couldTurnBack(): boolean {
    if (this.on.has('turn back')) return false;
    for (let t = 0; t < this.trains.length; t++) if (!this.isOff(t) && this.placementOf(t).terminus) return true;
    return false;
  }

  /** Whether a train looks, now or one step on, at anything that a step of that effect changes. */
  looksAtChange(train: number, effect: number): boolean {
    if (this.isOff(train)) return false;
    if (this.powers && this.placementOf(train).advances.some(({ fedBy }) => fedBy)) return true;
    const { thingWords } = this.rules.independence;
    return this.rules.changesAny(effect, this.sights[train]!.looksAt, this.present.at[train]! * thingWords);
  }

  /** Takes a step, given by its code, from the present state and lets the program settle. */
  apply(code: number): void {
    const [one, two = NOTHING] = this.pairs.partsOf(code);
    this.applyBoth(one, two);
  }

  /** Takes two single things within one scan; the second may be missing. */
  applyBoth(one: number, two: number): void {
    this.begin();
    let scans = moveOf(one).take(this, indexOf(one), choiceOf(one));
    if (two !== NOTHING) scans = moveOf(two).take(this, indexOf(two), choiceOf(two)) || scans;
    if (scans) this.settle(two === NOTHING && this.inOneScan && moveOf(one).pairs);
  }
  /** Takes a step that leaves the trains where they are, and of which it is known where it leads and how; `backFromKnown` follows. */
  applyKnown(to: number, effect: number): void {
    this.begin();
    this.follow(to, effect);
  }
  private begin(): void {
    this.hazards = 0;
    this.ended = false;
    this.effect = NOTHING;
  }

  /** Whether everything that a train would pass lets it, and one that stands without current has some again. */
  mayAdvance(train: number, way: number): boolean {
    return this.drivers.mayGo(train, way, this.displayed) && (!this.powers || this.hasPower(train, way));
  }
  /** One that stands without current does not start. */
  private hasPower(train: number, way: number): boolean {
    const { fedBy } = this.placementOf(train).advances[way]!;
    return fedBy === undefined || fedBy.some((power) => !this.rules.isCutOff(this.ruleState, power));
  }

  advance(train: number, way: number): boolean {
    const { at, committed, turnouts } = this.present;
    const from = this.placementOf(train);
    const { to, passes, carry, turnouts: onto, seen, offTheEnd } = from.advances[way]!;
    if (offTheEnd) {
      this.hazards |= BITS_OF_DEED['leaves the track'];
      return false;
    }
    for (const thing of passes) {
      if (!this.isAtStop(from.before[thing]!.signal)) continue;
      this.hazards |= countedOn(committed[train]!, thing)
        ? BITS_OF_DEED['passes a signal that dropped']
        : BITS_OF_DEED['passes a stop unannounced'];
    }
    for (const { motor, position } of onto)
      if (turnouts[motor] !== position) this.hazards |= BITS_OF_DEED['meets wrong points'];
    at[train] = to;
    committed[train] = committedCarried(committed[train]!, carry);
    this.lookAround(train);
    if (seen) return true;
    this.drivers.commit(train, this.displayed);
    this.hazards |= this.ofSignals.bits(this.displayed, at);
    return false;
  }

  turnBack(train: number, choice: number): boolean {
    const { at, committed } = this.present;
    const told = this.trains[train]!.tellings[at[train]!]![choice]!;
    at[train] = this.placementOf(train).turns[choice]!.to;
    committed[train] = STOOD;
    this.lookAround(train);
    this.tell(train, told);
    return true;
  }

  /** What a person says of a train where no other stands in the same stretch. */
  private tell(train: number, told: Said[]): void {
    for (const { trafficSection, slot, always } of told)
      if (always || !this.isShared(train, trafficSection)) this.rules.pulse(slot);
  }
  private isShared(train: number, trafficSection: number): boolean {
    const { ofBlock } = this.system.trafficSections;
    for (let t = 0; t < this.trains.length; t++) {
      if (t === train || this.isOff(t)) continue;
      for (const block of this.placementOf(t).blocks) if (ofBlock[block] === trafficSection) return true;
    }
    return false;
  }

  canStand(train: number): boolean {
    return this.drivers.mayStand(train, this.displayed);
  }
  stand(train: number): boolean {
    this.present.committed[train] = STOOD;
    this.drivers.commit(train, this.displayed);
    return false;
  }
  endTimer(timer: number): boolean {
    this.rules.endTimer(timer);
    return true;
  }
  ask(motor: number, diverging: number): boolean {
    this.rules.pulse(this.askSlots[motor]![diverging]!);
    return true;
  }
  lift(train: number): boolean {
    this.present.at[train] = this.trains[train]!.placements.length;
    this.present.committed[train] = STOOD;
    this.lookAround(train);
    return true;
  }
  isFreeToSetDown(train: number): boolean {
    const { pieces } = this.trains[train]!;
    const { at } = this.present;
    return this.trains.every(
      (other, t) => t === train || this.isOff(t) || !meet(pieces, STARTS_AT, other.pieces, at[t]!),
    );
  }
  setDown(train: number): boolean {
    const { at, turnouts } = this.present;
    at[train] = STARTS_AT;
    this.lookAround(train);
    for (const motor of this.placementOf(train).over)
      if (turnouts[motor]! >= MOVING) this.hazards |= BITS_OF_DEED['points move under it'];
    this.tell(train, this.trains[train]!.toldAtStart);
    return true;
  }

  private placementOf(train: number) {
    return this.trains[train]!.placements[this.present.at[train]!]!;
  }

  /** The hazards that lie in where a train now is, and the order in which it stands with others on one piece of track. */
  private lookAround(train: number): void {
    const { at, orders } = this.present;
    for (let other = 0; other < this.trains.length; other++) {
      if (other === train) continue;
      const first = Math.min(train, other);
      const second = Math.max(train, other);
      const two = twoOf(first, second);
      if (this.isOff(train) || this.isOff(other)) {
        orders[two] = APART;
        continue;
      }
      const meeting = this.meetings[two]!.at(at[first]!, at[second]!, orders[two]!, train === first);
      orders[two] = orderIn(meeting);
      this.hazards |= hazardsIn(meeting);
      if (endsIn(meeting)) this.ended = true;
    }
  }

  /** The rules scan until nothing changes; turnouts begin to move, and drivers count on what they see at each scan. */
  private settle(wantPrint: boolean): void {
    const { rules, seen, sights } = this;
    const { at, turnouts } = this.present;
    for (let w = 0; w < seen.length; w++) {
      let bits = 0;
      for (let t = 0; t < at.length; t++) bits |= sights[t]!.seenBy[at[t]! * seen.length + w]!;
      seen[w] = bits;
    }
    rules.step(this.ruleState, seen, turnouts, wantPrint);
    this.follow(rules.to, rules.effect);
    this.readTurnouts();
  }

  private follow(to: number, effect: number): void {
    const { rules } = this;
    this.ruleState = to;
    this.effect = effect;
    const list = rules.effects.shownIn(effect);
    this.drivers.commitAll(list);
    this.hazards |= this.ofSignals.bitsBefore(list);
    for (let w = 0; w < rules.effects.turnoutWords; w++)
      for (let bits = rules.effects.movedIn(effect, w); bits !== 0; bits &= bits - 1)
        if (this.isOver(w * 32 + 31 - Math.clz32(bits & -bits))) this.hazards |= BITS_OF_DEED['points move under it'];
    this.hazards |= this.ofSignals.bits(rules.displayedIn(to), this.present.at);
    if (!rules.effects.neverSettles(effect)) return;
    this.hazards |= BITS_OF_RULES;
    this.ended = true;
  }

  private isOver(motor: number): boolean {
    return this.trains.some((_, t) => !this.isOff(t) && this.placementOf(t).over.includes(motor));
  }
}
