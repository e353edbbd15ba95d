import { NOWHERE, promisesFree } from '../../kinds';
import { type Deed, HAZARD_IDS, type HazardId } from '../../simulation';
import type { TerminalKind } from '../../system';
import { HAZARDS_OF_DEED } from '../hazards/hazard-bits';
import type { ProofModel } from '../model/model';
import type { Before, Placement } from '../model/placements';
import type { Said } from '../model/proof-train';
import { type PromelaRules, writeRulesPromela } from './write-rules';

/** The flag of each hazard in the model: `spin -DHARM=harm_trains_touch` looks for that one. */
export const hazardFlag = (hazard: HazardId): string => `hazard_${hazard.replaceAll(' ', '_')}`;

/** More things than lie before any train. */
const NO_STOP = 250;

/** The text of a Promela model as it is being written, and the phrases that its parts share. */
export class PromelaText {
  readonly lines: string[] = [];
  readonly rules: PromelaRules;
  /** Every hazard’s flag is taken back: what comes next does hazard of its own. */
  readonly clear = HAZARD_IDS.map((hazard) => `${hazardFlag(hazard)} = 0`).join('; ');
  private readonly things = new Map<string, number>();

  constructor(readonly model: ProofModel) {
    this.rules = writeRulesPromela(model);
  }

  readonly say = (...text: string[]): void => {
    this.lines.push(...text);
  };
  /** The value of a terminal. */
  readonly terminal = (kind: TerminalKind, of: number, which = ''): string =>
    `value[${this.model.system.terminals.slot(kind, of, which)}]`;
  private readonly aspectOf = (signal: number): string => `value[${this.model.rules.wiring.aspects[signal]!}]`;
  /** A signal shows an aspect that obliges to stop before it. */
  readonly isAtStop = (signal: number): string =>
    `(${this.model.system.aspects.flatMap(({ stopsIn }, i) => (stopsIn === 0 ? [`${this.aspectOf(signal)} == ${i}`] : [])).join(' || ')})`;
  /** It shows one that says that nothing stands on its way. */
  readonly promisesFree = (signal: number): string =>
    this.either(
      this.model.system.aspects.flatMap((aspect, i) =>
        promisesFree(aspect) ? [`${this.aspectOf(signal)} == ${i}`] : [],
      ),
    );
  /** One more than the number of the signal to stop before, counted from this one, by what it shows; NO_STOP for none. */
  readonly stopsIn = (signal: number): string =>
    this.model.system.aspects.reduceRight(
      (rest, { stopsIn }, i) =>
        `(${this.aspectOf(signal)} == ${i} -> ${stopsIn === NOWHERE ? NO_STOP : stopsIn + 1} : ${rest})`,
      String(NO_STOP),
    );
  /** A train is in one of some placements. */
  readonly among = (train: number, numbers: number[]): string =>
    `(${numbers.map((n) => `at${train} == ${n}`).join(' || ')})`;
  /** The placements of a train of which something is so. */
  readonly where = (train: number, pick: (placement: Placement, number: number) => boolean): number[] =>
    this.model.trains[train]!.placements.flatMap((p, n) => (pick(p, n) ? [n] : []));
  readonly either = (parts: string[]): string => (parts.length > 0 ? `(${parts.join(' || ')})` : '0');
  readonly whenever = (guard: string, then: string): string => `if :: ${guard} -> ${then} :: else fi`;
  readonly set = (hazard: HazardId): string => `${hazardFlag(hazard)} = 1`;
  /** A step does that to a train: the flags of the hazards that it is. */
  readonly does = (deed: Deed): string => HAZARDS_OF_DEED[deed].map(this.set).join('; ') || 'skip';
  /** Points do not lie otherwise. */
  readonly coming = (over: Before['over']): string =>
    over.length === 0
      ? '1'
      : `(${over.map(({ motor, position }) => `(lies${motor} > 1 || lies${motor} == ${position})`).join(' && ')})`;

  /** The number of a thing that something can be done to; two things within one scan are done to different ones. */
  thing(name: string): number {
    const number = this.things.get(name) ?? this.things.size;
    this.things.set(name, number);
    return number;
  }
  /** One thing alone, or a second one within the same scan, may be done now. */
  begins(thing: number, pairs: boolean): string {
    return pairs && this.model.on.has('one scan')
      ? `!ended && todo == 0 && (work == 0 || (work == 1 && events == 1 && who >= 0 && who != ${thing}))`
      : '!ended && todo == 0 && work == 0';
  }
  /** It is done, so that the rules must be scanned. */
  takes(thing: number, pairs: boolean): string {
    return `if :: work == 0 -> ${this.clear}; events = 0 :: else fi; events++; who = ${pairs ? thing : -1}; work = 1`;
  }
  /** The first of the steps in which a train that has moved is looked at beside each other train, and then committed anew. */
  toLook(train: number, binds: boolean): number {
    return 1 + train * 2 * (this.model.trains.length + 1) + (binds ? 1 : 0);
  }
  /** What a person says of a train where no other stands in the same stretch. */
  told(train: number, tellings: Said[]): string[] {
    const { trains, system } = this.model;
    return tellings.map(({ trafficSection, slot, always }) => {
      const shared = trains.flatMap((_, o) => {
        const numbers =
          o === train
            ? []
            : this.where(o, (q) => q.blocks.some((b) => system.trafficSections.ofBlock[b] === trafficSection));
        return numbers.length > 0 ? [this.among(o, numbers)] : [];
      });
      const said = `value[${slot}] = 1`;
      return always ? said : this.whenever(`!(${this.either(shared)})`, said);
    });
  }
}
