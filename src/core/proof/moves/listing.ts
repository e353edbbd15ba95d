import type { ProofModel } from '../model/model';
import { encodeMove } from './code';
import type { MoveKind } from './kind';

/** Lists what can be done; what adds a step of a kind is made once, since a proof lists steps for every state. */
export class Listing {
  private into: number[] = [];
  private count = 0;
  private readonly toRules: Lister[];
  private readonly toTrains: Lister[];

  constructor({ rules, trains }: Record<'rules' | 'trains', readonly Numbered[]>) {
    const adding = ({ kind, list }: Numbered): Lister => ({
      list,
      add: (index, choice) => {
        this.into[this.count++] = encodeMove(kind, index, choice);
      },
    });
    this.toRules = rules.map(adding);
    this.toTrains = trains.map(adding);
  }

  /** Writes the code of every single thing that can be done in the present state, to the rules alone or to trains; returns how many. */
  write(model: ProofModel, into: number[], toRules: boolean): number {
    this.into = into;
    this.count = 0;
    for (const { list, add } of toRules ? this.toRules : this.toTrains) list(model, add);
    return this.count;
  }
}

interface Numbered {
  kind: number;
  list: MoveKind['list'];
}
interface Lister {
  list: MoveKind['list'];
  add(index: number, choice: number): void;
}
