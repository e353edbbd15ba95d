import { END_OF_TRACK } from '../../signals';
import { committedNow, committedPast, STOOD } from './committed';
import type { DisplayedAspects } from './displayed-aspects';
import type { Advance, Before } from './placement';
import type { Present } from './plant-state';
import type { ProofTrain } from './proof-train';
import { MOVING } from './rule-memory';
import { NONE, type Sight } from './sight';

/** Committed past one signal that showed proceed, and no more. */
const PAST_ONE = 2;
/** In place of the one signal that must let a train go on: nothing must, or it is not that simple. */
const [FREE, ASK] = [-1, -2];

/** How a turnout lies; undefined while it moves. */
const atRest = (state: number): number | undefined => (state >= MOVING ? undefined : state);

/**
 * What drivers do by what their signals show: whether they go on or come to a stand, and what they are committed to pass. Nearly
 * always one signal alone decides, which is looked up in rows of numbers; the rest is worked out.
 */
export class Drivers {
  /** For each train, where the ways on of each of its placements begin, and for each way its one gate. */
  private readonly firstWay: Int32Array[];
  private readonly gate: Int32Array[];
  /** What is looked at in `committedNow`. */
  private looked = 0;
  private readonly stopsInSeen = (signal: number) => this.stopsIn[this.displays.thing(this.looked, signal)]!;
  private readonly liesSeen = (motor: number) => atRest(this.displays.lies(this.looked, motor));
  private readonly lies = (motor: number) => atRest(this.present.turnouts[motor]!);

  /** `stopsIn`: what each aspect obliges to, by its number. */
  constructor(
    private readonly trains: readonly ProofTrain[],
    private readonly sights: readonly Sight[],
    private readonly present: Present,
    private readonly displays: DisplayedAspects,
    private readonly stopsIn: readonly number[],
  ) {
    this.firstWay = trains.map(({ placements }) => {
      const first = new Int32Array(placements.length + 1);
      placements.forEach(({ advances }, p) => {
        first[p + 1] = first[p]! + advances.length;
      });
      return first;
    });
    this.gate = trains.map(({ placements }) =>
      Int32Array.from(placements.flatMap(({ advances, before }) => advances.map((way) => gateOf(before, way)))),
    );
  }

  /** Whether all that a train would pass on a way lets it. */
  mayGo(train: number, way: number, displayed: number): boolean {
    const { at, committed } = this.present;
    const gate = this.gate[train]![this.firstWay[train]![at[train]!]! + way]!;
    if (gate === FREE) return true;
    if (gate >= 0) return committed[train] !== STOOD || this.displays.isClear(displayed, gate);
    const { before, advances } = this.trains[train]!.placements[at[train]!]!;
    const { gates, turnouts } = advances[way]!;
    const past = committedPast(committed[train]!);
    for (const nth of gates) {
      const { signal, over } = before[nth]!;
      if (past > nth || !this.isComing(over)) continue;
      if (signal === END_OF_TRACK || !this.displays.isClear(displayed, signal)) return false;
    }
    for (const { motor, position, facing } of turnouts)
      if (facing && (this.lies(motor) ?? position) !== position) return false;
    return true;
  }

  /** The points do not lie otherwise. Those that move may still come to lie so. */
  private isComing(over: Before['over']): boolean {
    return over.every(({ motor, position }) => (this.lies(motor) ?? position) === position);
  }

  /** A train is committed to pass more than it would be if it stood. */
  mayStand(train: number, displayed: number): boolean {
    const committed = this.present.committed[train]!;
    if (committed === STOOD) return false;
    const alone = this.aloneBefore(train);
    if (alone >= 0) return !this.displays.isClear(displayed, alone) || committed > PAST_ONE;
    return committed > (alone === NONE ? STOOD : this.lookedAt(train, displayed, STOOD));
  }

  /** What a train is committed to pass by what its signals show. */
  commit(train: number, displayed: number): void {
    const { committed } = this.present;
    const alone = this.aloneBefore(train);
    if (alone >= 0) {
      if (this.displays.isClear(displayed, alone)) committed[train] = PAST_ONE;
    } else if (alone === NONE) committed[train] = STOOD;
    else committed[train] = this.lookedAt(train, displayed, committed[train]!);
  }

  /** The same for every train, by all that was shown at one scan after the other. */
  commitAll(list: number): void {
    const { displays } = this;
    const { committed } = this.present;
    for (let t = 0; t < committed.length; t++) {
      const alone = this.aloneBefore(t);
      if (alone >= 0) {
        if (displays.isClearInList(list, alone)) committed[t] = PAST_ONE;
      } else if (alone === NONE) committed[t] = STOOD;
      else
        for (let rest = list; rest >= 0; rest = displays.rest(rest))
          committed[t] = this.lookedAt(t, displays.first(rest), committed[t]!);
    }
  }

  private aloneBefore(train: number): number {
    return this.sights[train]!.alone[this.present.at[train]!] ?? NONE;
  }
  private lookedAt(train: number, displayed: number, committed: number): number {
    this.looked = displayed;
    const { before } = this.trains[train]!.placements[this.present.at[train]!]!;
    return committedNow(before, committed, this.stopsInSeen, this.liesSeen);
  }
}

/** The one signal that must let a train pass on a way, whatever the points, FREE or ASK. */
function gateOf(before: readonly Before[], { gates, turnouts }: Advance): number {
  if (turnouts.some(({ facing }) => facing)) return ASK;
  const [nth, ...more] = gates;
  if (nth === undefined) return FREE;
  const { signal, over } = before[nth]!;
  return more.length > 0 || nth > 0 || over.length > 0 || signal === END_OF_TRACK ? ASK : signal;
}
