import type { HazardId } from '../../simulation';
import type { TerminalKind } from '../../system';
import type { ProofModel } from '../model/model';
import { type PromelaRules, writeRulesPromela } from './write-rules';

/** The flag of each hazard in the model: `spin -DHAZARD=hazard_trains_touch` looks for that one. */
export const hazardFlag = (hazard: HazardId): string => `hazard_${hazard.replaceAll(' ', '_')}`;

/** More things than lie before any train. */
export const NO_STOP = 250;

/** The text of a Promela model as it is being written, and the phrases that its parts share. */
export class PromelaText {
  readonly lines: string[] = [];
  readonly rules: PromelaRules;
  /** Trains are the first things. */
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

  /** The number of a thing that something can be done to; two things within one scan are done to different ones. Trains have their own. */
  thing(name: string): number {
    const number = this.things.get(name) ?? this.model.trains.length + this.things.size;
    this.things.set(name, number);
    return number;
  }
  /** One thing alone, or a second one within the same scan, may be done now. */
  begins(thing: number): string {
    return this.model.on.has('one scan') ? `SECOND(${thing})` : 'ALONE';
  }
  /** It is done, so that the rules must be scanned; −1 where nothing else may fall into that scan. */
  takes(thing: number): string {
    return `c_code { takes(${thing}); }`;
  }
  /** The first of the steps in which a train that has moved is looked at beside each other train, and then committed anew. */
  toLook(train: number, commits: boolean): number {
    return 1 + train * 2 * (this.model.trains.length + 1) + (commits ? 1 : 0);
  }
}
