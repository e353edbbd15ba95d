import { type Declaration, type Expr, type Program, partsOf } from './expr';
import { comparedType, type Present, presentValue } from './present-value';
import { type ReadValue, sayValue } from './why';

/** Something that is so at present: an input, a memory, what a name was at the last scan, or what its rule calls a fact. */
export interface Fact {
  name: string;
  /** In a sentence: “FM is occupied”. */
  says: string;
  /** The id of the thing it is about. */
  about?: string;
}

/** Sets of facts kept at each step, the smallest first. More are never needed in a program of ordinary signals. */
const MOST_SETS = 48;
/** Up to so many combinations of facts every one is looked at, so that no smaller set is missed. */
const MOST_ROWS = 8192;

/**
 * The smallest set of present facts that forces the value a name has now, whatever all other facts may be. Exact where the facts
 * that matter have at most MOST_ROWS combinations; else the smallest that the rules themselves show. Undefined for a name with a
 * memory of its own, which present facts do not force, and where a value is not known.
 */
export function decidingFacts(program: Program, name: string, read: ReadValue): Fact[] | undefined {
  const root = program.declarations.find((declaration) => declaration.name === name);
  if (!root?.expr || hasMemory(root.expr)) return undefined;
  const search = new Search(program, read, root.why?.about);
  const value = search.evaluate(root.expr, root.type);
  if (value === undefined) return undefined;
  const known = search.smallest(root.expr, root.type);
  const found = new Map<string, Fact>();
  for (const leaf of known) {
    const declaration = search.byName.get(leaf.name)!;
    const says = sayValue(program, declaration, read(leaf.name));
    if (!found.has(says)) found.set(says, { name: leaf.name, says, about: declaration.why?.about });
  }
  return [...found.values()];
}

const MEMORIES: ReadonlySet<Expr['op']> = new Set(['SR', 'RS', 'TON', 'TOF', 'TP', 'R_TRIG', 'F_TRIG']);
const hasMemory = (expr: Expr): boolean => MEMORIES.has(expr.op) || partsOf(expr).some(hasMemory);

interface Leaf {
  name: string;
  /** How many values it can have. */
  values: number;
  present: number;
}

class Search {
  readonly byName: Map<string, Declaration>;
  private readonly leaves: Leaf[] = [];
  private readonly numbers = new Map<string, number>();
  private readonly sets = new Map<string, bigint[]>();
  /** What each leaf is taken to be; what it is now, but where a table is made. */
  private taken: number[] = [];
  private memo = new Map<string, number | undefined>();
  private readonly present: Present;

  constructor(
    private readonly program: Program,
    private readonly read: ReadValue,
    /** What is asked about. */
    private readonly about: string | undefined,
  ) {
    this.byName = new Map(program.declarations.map((declaration) => [declaration.name, declaration]));
    this.present = {
      enums: program.enums,
      typeOf: (name) => this.byName.get(name)?.type,
      read: (name, before) => {
        const rule = this.byName.get(name);
        if (before || !rule?.expr || this.isLeaf(rule)) return this.leafValue(name, before);
        if (!this.memo.has(name)) this.memo.set(name, this.evaluate(rule.expr, rule.type));
        return this.memo.get(name);
      },
    };
  }

  /** An answer does not go behind it. */
  private isLeaf({ name, expr, why }: Declaration): boolean {
    if (expr && hasMemory(expr)) return true;
    if (why?.fact === 'when so') return this.read(name) === 1;
    if (why?.fact === 'when not') return this.read(name) === 0 && why.about !== this.about;
    return why?.fact === 'always';
  }

  smallest(expr: Expr, type: string): Leaf[] {
    const shown = this.forcing(expr, type);
    const ofSet = (set: bigint) => this.leaves.filter((_, i) => (set >> BigInt(i)) & 1n);
    return ofSet(this.fromTable(expr, type, shown[0]!) ?? shown[0]!);
  }

  /** A value under what the leaves are taken to be. */
  evaluate(expr: Expr, type?: string): number | undefined {
    return presentValue(expr, this.present, type);
  }
  private leafNumber(name: string, before: boolean): number {
    const key = before ? `previous ${name}` : name;
    let number = this.numbers.get(key);
    if (number === undefined) {
      number = this.leaves.length;
      this.numbers.set(key, number);
      const type = this.byName.get(name)?.type ?? 'bool';
      const values = type === 'bool' ? 2 : (this.program.enums[type]?.length ?? 1);
      const present = this.read(name);
      this.leaves.push({ name, values, present: present ?? 0 });
      this.taken.push(present ?? 0);
    }
    return number;
  }
  private leafValue(name: string, before: boolean): number | undefined {
    return this.read(name) === undefined ? undefined : this.taken[this.leafNumber(name, before)];
  }

  /** Sets of facts, as bits, each of which forces an expression to what it is now, by the rules as they are written; smallest first. */
  private forcing(expr: Expr, type?: string): bigint[] {
    switch (expr.op) {
      case 'previous':
        return [1n << BigInt(this.leafNumber(expr.name, true))];
      case 'name': {
        const rule = this.byName.get(expr.name);
        if (!rule?.expr || this.isLeaf(rule)) return [1n << BigInt(this.leafNumber(expr.name, false))];
        let known = this.sets.get(expr.name);
        if (!known) {
          known = this.forcing(rule.expr, rule.type);
          this.sets.set(expr.name, known);
        }
        return known;
      }
      case 'not':
        return this.forcing(expr.of);
      case 'and':
      case 'or': {
        const decisive = expr.op === 'or' ? 1 : 0;
        if (this.evaluate(expr) === decisive)
          return best(expr.of.filter((part) => this.evaluate(part) === decisive).flatMap((part) => this.forcing(part)));
        return expr.of.map((part) => this.forcing(part)).reduce(both, [0n]);
      }
      case 'is': {
        const kind = comparedType(expr, this.present);
        return both(this.forcing(expr.left, kind), this.forcing(expr.right, kind));
      }
      case 'if': {
        const [chosen, other] = this.evaluate(expr.when) ? [expr.then, expr.otherwise] : [expr.otherwise, expr.then];
        const ways = both(this.forcing(expr.when), this.forcing(chosen, type));
        if (this.evaluate(other, type) !== this.evaluate(chosen, type)) return ways;
        return best([...ways, ...both(this.forcing(chosen, type), this.forcing(other, type))]);
      }
      default:
        return [0n];
    }
  }

  /** The smallest set by looking at every combination of all facts; undefined where there are too many. */
  private fromTable(expr: Expr, type: string, known: bigint): bigint | undefined {
    /** Every leaf there is, also those behind what does not matter now. */
    this.meetAll(expr, new Set());
    const { leaves } = this;
    const rows = leaves.reduce((product, { values }) => product * values, 1);
    if (rows > MOST_ROWS) return undefined;
    /** For each combination with another outcome, the facts in which it differs from now: a set that forces holds one of each. */
    const differing = new Set<number>();
    const now = this.evaluate(expr, type);
    for (let row = 0; row < rows; row++) {
      let rest = row;
      let differs = 0;
      leaves.forEach(({ values, present }, i) => {
        this.taken[i] = rest % values;
        rest = Math.floor(rest / values);
        if (this.taken[i] !== present) differs |= 1 << i;
      });
      this.memo = new Map();
      if (this.evaluate(expr, type) !== now) differing.add(differs);
    }
    this.taken = leaves.map(({ present }) => present);
    this.memo = new Map();
    const least = [...differing].filter((one) => ![...differing].some((two) => two !== one && (two & one) === two));
    const hit = (set: number) => least.every((one) => (one & set) !== 0);
    for (let size = 0; size < bitsIn(known); size++) {
      const found = subsetsOf(leaves.length, size).find(hit);
      if (found !== undefined) return BigInt(found);
    }
    return known;
  }

  private meetAll(expr: Expr, seen: Set<string>): void {
    if (expr.op === 'previous') this.leafNumber(expr.name, true);
    if (expr.op === 'name' && !seen.has(expr.name)) {
      seen.add(expr.name);
      const rule = this.byName.get(expr.name);
      if (!rule?.expr || this.isLeaf(rule)) this.leafNumber(expr.name, false);
      else this.meetAll(rule.expr, seen);
    }
    for (const part of partsOf(expr)) this.meetAll(part, seen);
  }
}

function bitsIn(set: bigint): number {
  let count = 0;
  for (let rest = set; rest !== 0n; rest &= rest - 1n) count += 1;
  return count;
}

/** The smallest sets, none of which holds another; of one size the one with the earlier facts first. */
function best(sets: bigint[]): bigint[] {
  const sized = [...new Set(sets)].map((set) => ({ set, size: bitsIn(set) }));
  sized.sort((a, b) => a.size - b.size || (a.set < b.set ? -1 : 1));
  const kept: bigint[] = [];
  for (const { set } of sized) {
    if (kept.length >= MOST_SETS) break;
    if (!kept.some((smaller) => (smaller & set) === smaller)) kept.push(set);
  }
  return kept;
}

const both = (a: bigint[], b: bigint[]): bigint[] => best(a.flatMap((one) => b.map((two) => one | two)));

/** Every set of so many out of `count`, as bits, the one with the earlier ones first. */
function subsetsOf(count: number, size: number): number[] {
  const found: number[] = [];
  const walk = (from: number, left: number, set: number) => {
    if (left === 0) found.push(set);
    else for (let i = from; i <= count - left; i++) walk(i + 1, left - 1, set | (1 << i));
  };
  walk(0, size, 0);
  return found;
}
