import {
  constantOf,
  type Declaration,
  type Expr,
  memoriesIn,
  type Program,
  RuleTextError,
  readProgram,
  renamed,
  TOO_MANY,
  writeDeclaration,
  writeExpr,
  writeName,
} from '../logic';
import { calledName, OWN, problemOf, standsAlone } from '../patterns';
import { nearest } from '../walk';

/** The rules about a thing, to be looked at and changed. */
export interface RulesAbout {
  /** One declaration a paragraph, in the words of people. */
  text: string;
  rules: RuleOf[];
  /** What can be named, for completion. */
  names: { label: string; type: string; says: string }[];
}
export interface RuleOf {
  name: string;
  /** As it is written in the text. */
  written: string;
  says: string;
  pattern: string;
  /** With its names as they are written. */
  expr: Expr;
  /** It is somebody's own; and if it stands in the place of one that is generated, that one, as text. */
  own: boolean;
  generated: string | undefined;
}

/** What is wrong in a text, and where: from and to are places in it. */
export interface TextFault {
  from: number;
  to: number;
  says: string;
  /** It keeps the rules from being used. */
  stops: boolean;
  /** What to write instead. */
  offer?: string;
}
export interface RulesRead {
  faults: TextFault[];
  /** Rules that are others than those generated, with ids in the place of names; and those that are as generated again. */
  put: { name: string; text: string; type?: string; about?: string }[];
  drop: string[];
}

const HEAD = 'scan 20 ms\n';

export function rulesAbout(program: Program, id: string): RulesAbout {
  const own = ownOf(program, id);
  return {
    text: own.map((rule) => writeDeclaration(rule, program.called)).join('\n\n'),
    rules: own.map((rule) => ({
      name: rule.name,
      written: writeName(rule.name, program.called),
      says: rule.why?.yes ?? '',
      pattern: rule.why?.pattern ?? OWN,
      expr: renamed(rule.expr!, (name) => writeName(name, program.called)),
      own: isOwn(rule),
      generated: rule.generated && writeExpr(rule.generated, program.called),
    })),
    names: program.declarations.map(({ name, type, why }) => ({
      label: writeName(name, program.called),
      type,
      says: why?.yes ?? '',
    })),
  };
}

const ownOf = ({ declarations }: Program, id: string): Declaration[] =>
  declarations.filter(({ why, expr, name }) => expr && (why?.about === id || name.split('.')[1] === id));

/** What is asked of a program at every keystroke, found once for each: its rules by name, and names by what they are called. */
interface Looked {
  byName: ReadonlyMap<string, Declaration>;
  byCalled: ReadonlyMap<string, readonly string[]>;
}
const looked = new WeakMap<Program, Looked>();
function lookAt(program: Program): Looked {
  const known = looked.get(program);
  if (known) return known;
  const byCalled = new Map<string, string[]>();
  for (const { name } of program.declarations) {
    const called = calledName(program, name);
    byCalled.set(called, [...(byCalled.get(called) ?? []), name]);
  }
  const found = { byName: new Map(program.declarations.map((one) => [one.name, one])), byCalled };
  looked.set(program, found);
  return found;
}

const isOwn = ({ why }: Declaration): boolean => why?.pattern === OWN;

/** Reads changed rules about a thing: what is wrong with them, and what they change. */
export function readRules(program: Program, id: string, text: string): RulesRead {
  const faults: TextFault[] = [];
  const nothing = { faults, put: [], drop: [] };
  let read: Program;
  try {
    read = readProgram(HEAD + text);
  } catch (error) {
    if (!(error instanceof RuleTextError)) throw error;
    const from = placeOf(text, error.line - 1, error.column);
    faults.push({
      from,
      to: wordEnd(text, from),
      says: error.message.replace(/^Line \d+, column \d+: /, ''),
      stops: true,
    });
    return nothing;
  }
  const { byCalled } = lookAt(program);
  const fresh = new Set(read.declarations.map(({ name }) => name).filter((name) => !byCalled.has(name)));
  const fault = (name: string, says: string, offer?: string) => {
    const from = Math.max(0, text.indexOf(offer === undefined ? name : writtenAs(name)));
    faults.push({ from, to: from + writtenAs(name).length, says, stops: true, ...(offer ? { offer } : {}) });
  };
  const resolve = (name: string): string => {
    const known = byCalled.get(name);
    if (known?.length === 1) return known[0]!;
    if (known) {
      fault(name, `Two things are called “${name}”. Rename one of them first.`);
      return known[0]!;
    }
    if (fresh.has(name)) return name;
    const near = meant(name, [...byCalled.keys()]);
    const offer = near && writeName(byCalled.get(near)![0]!, program.called);
    fault(name, `There is no “${name}”.${offer ? ` Did you mean ${offer}?` : ''}`, offer);
    return name;
  };
  const declared = read.declarations.map((one): Declaration => {
    const name = fresh.has(one.name) ? one.name : resolve(one.name);
    return { ...one, name, ...(one.expr ? { expr: renamed(one.expr, resolve) } : {}) };
  });
  const twice = declared.find(({ name }, i) => declared.findIndex((other) => other.name === name) !== i);
  if (twice)
    fault(
      calledName(program, twice.name),
      `There are two rules ${calledName(program, twice.name)}: they fight each other.`,
    );
  if (faults.length > 0) return nothing;
  const { put, drop, remarked } = changesOf(program, id, declared, fault);
  if (faults.length > 0) return nothing;
  const problem = put.length > 0 ? problemOf(withThese(program, declared)) : undefined;
  if (problem) {
    const at = Math.max(0, text.indexOf(writeName(put[0]!.name, program.called)));
    faults.push({ from: at, to: wordEnd(text, at), says: problem, stops: true });
    return nothing;
  }
  for (const { name, expr } of remarked) remarks(program, text, name, expr, faults);
  return { faults, put, drop };
}

/** What the rules read would change: those to put, those to drop, and those on which remarks are made. */
function changesOf(
  program: Program,
  id: string,
  declared: readonly Declaration[],
  fault: (name: string, says: string) => void,
) {
  const now = lookAt(program).byName;
  const put: RulesRead['put'] = [];
  const drop: string[] = [];
  const remarked: { name: string; expr: Expr }[] = [];
  for (const { name, expr, role, type } of declared) {
    const before = now.get(name);
    const called = calledName(program, name);
    if (!expr || (before && !before.expr)) {
      if (role !== 'input' || !before) fault(called, `${called} is an input: it comes from the track.`);
      continue;
    }
    if (!before && !standsAlone(name))
      fault(called, `A rule beside those generated has a name of one word: ${called} is none of theirs.`);
    if (before && before.type !== type) fault(called, `${called} is ${before.type}, not ${type}.`);
    const generated = before && (before.generated ?? (isOwn(before) ? undefined : before.expr!));
    if (generated && same(generated, expr)) {
      if (before.generated) drop.push(name);
    } else if (!before || !same(before.expr!, expr))
      put.push({
        name,
        text: writeExpr(expr),
        ...(before ? {} : { about: id }),
        ...(generated || type === 'bool' ? {} : { type }),
      });
    remarked.push({ name, expr });
  }
  for (const own of ownOf(program, id))
    if (isOwn(own) && !declared.some(({ name }) => name === own.name)) drop.push(own.name);
  return { put, drop, remarked };
}

/** The program with these rules in the place of those of the same name, and the others behind. */
function withThese(program: Program, declared: readonly Declaration[]): Program {
  const now = lookAt(program).byName;
  const changed = new Map(declared.map((one) => [one.name, one]));
  const declarations = program.declarations.map((one) =>
    one.expr ? { ...one, expr: changed.get(one.name)?.expr ?? one.expr } : one,
  );
  return { ...program, declarations: [...declarations, ...declared.filter(({ name }) => !now.has(name))] };
}

/** What a rule can never do: it is found exactly, with every name free. */
function remarks(program: Program, text: string, name: string, expr: Expr, faults: TextFault[]): void {
  const { byName } = lookAt(program);
  const constant = (of: Expr) => constantOf(of, program, (asked) => byName.get(asked)?.type);
  const called = writeName(name, program.called);
  const from = Math.max(0, text.indexOf(called));
  const remark = (says: string) => faults.push({ from, to: from + called.length, says, stops: false });
  if ((byName.get(name)?.type ?? 'bool') === 'bool') {
    const value = constant(expr);
    if (value === 0 && expr.op !== 'false') remark('This can never be true.');
    if (value === 1 && expr.op !== 'true') remark('This is always true.');
    if (value === TOO_MANY) remark('Whether this can ever be true has too many cases to look at.');
  }
  for (const memory of memoriesIn(expr)) {
    if (constant(memory.reset) === 0) remark('A memory in it never resets.');
    if (constant(memory.set) === 0) remark('A memory in it is never set.');
  }
}

const same = (one: Expr, other: Expr): boolean => writeExpr(one) === writeExpr(other);

/** The name that was most likely meant: of those that begin with the same word, if there are any. */
function meant(name: string, known: readonly string[]): string | undefined {
  const [kind, ...rest] = name.split('.');
  const alike = known.filter((one) => one.startsWith(`${kind}.`)).map((one) => one.slice(kind!.length + 1));
  const near =
    rest.length > 0 && alike.length > 0
      ? nearest(
          rest.join('.'),
          alike.map((one) => one.toLowerCase()),
        )
      : undefined;
  const whole = near && alike.find((one) => one.toLowerCase() === near);
  return whole === undefined ? nearest(name, known) : `${kind}.${whole}`;
}

const writtenAs = (name: string): string => writeName(name);

/** The place in a text of a line and column, both from 1. */
function placeOf(text: string, line: number, column: number): number {
  const lines = text.split('\n');
  const before = lines.slice(0, Math.max(0, line - 1)).reduce((sum, one) => sum + one.length + 1, 0);
  return Math.min(text.length, before + Math.max(0, column - 1));
}
function wordEnd(text: string, from: number): number {
  const rest = /^[\w."#]+|^./.exec(text.slice(from));
  return Math.min(text.length, from + (rest?.[0].length ?? 0));
}
