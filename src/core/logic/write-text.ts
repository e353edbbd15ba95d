import type { Declaration, Expr, Program } from './expr';

const WORD = /^[A-Za-z_][A-Za-z0-9_]*$/;
/** Words of the language; a name that is one of them is quoted. */
export const RESERVED = new Set([
  'true',
  'false',
  'not',
  'and',
  'or',
  'is',
  'if',
  'then',
  'else',
  'input',
  'rule',
  'output',
  'values',
  'scan',
  'PREVIOUS',
  'SR',
  'RS',
  'TON',
  'TOF',
  'TP',
  'R_TRIG',
  'F_TRIG',
  'on',
  'off',
  'ms',
]);

/** What people call the parts of names; a part that has no entry is called what it is. */
type Called = Program['called'];

/** A dotted name as text; parts that are no plain words are quoted: signal."4.2". */
export function writeName(name: string, called?: Called): string {
  return name
    .split('.')
    .map((part) => called?.[part] ?? part)
    .map((part) => (WORD.test(part) && !RESERVED.has(part) ? part : JSON.stringify(part)))
    .join('.');
}

const BINDS: Record<string, number> = { if: 0, or: 1, and: 2, is: 3, not: 4 };

/** The text form of an expression; it parses back to the same tree, in the words that people have for its names. */
export function writeExpr(expr: Expr, called?: Called): string {
  const write = (part: Expr) => writeExpr(part, called);
  const inner = (part: Expr, least: number): string => {
    const text = write(part);
    return (BINDS[part.op] ?? 9) < least ? `(${text})` : text;
  };
  switch (expr.op) {
    case 'true':
    case 'false':
      return expr.op;
    case 'value':
      return `#${writeName(expr.value)}`;
    case 'name':
      return writeName(expr.name, called);
    case 'previous':
      return `PREVIOUS(${writeName(expr.name, called)})`;
    case 'not':
      return `not ${inner(expr.of, 4)}`;
    case 'and':
      return expr.of.map((part) => inner(part, 3)).join(' and ');
    case 'or':
      return expr.of.map((part) => inner(part, 2)).join(' or ');
    case 'is':
      return `${inner(expr.left, 4)} is ${inner(expr.right, 4)}`;
    case 'if':
      return `if ${inner(expr.when, 1)} then ${inner(expr.then, 1)} else ${inner(expr.otherwise, 0)}`;
    case 'SR':
    case 'RS':
      return `${expr.op}(${write(expr.set)}, ${write(expr.reset)}, ${onOff(expr.starts)})`;
    case 'TON':
    case 'TOF':
    case 'TP':
      return `${expr.op}(${write(expr.in)}, ${expr.ms} ms, ${onOff(expr.starts)})`;
    case 'R_TRIG':
    case 'F_TRIG':
      return `${expr.op}(${write(expr.in)}, ${onOff(expr.starts)})`;
  }
}

const onOff = (starts: boolean) => (starts ? 'on' : 'off');

export function writeDeclaration(declaration: Declaration, called?: Called): string {
  const head = `${declaration.role} ${writeName(declaration.name, called)} : ${declaration.type}`;
  return declaration.expr ? `${head} = ${writeExpr(declaration.expr, called)}` : head;
}

/** The whole program as text, one declaration a line. */
export function writeProgram(program: Program): string {
  const lines = [`scan ${program.scanMs} ms`];
  for (const [type, values] of Object.entries(program.enums))
    lines.push(`values ${type} = ${values.map((value) => writeName(value)).join(', ')}`);
  for (const declaration of program.declarations) lines.push(writeDeclaration(declaration, program.called));
  return `${lines.join('\n')}\n`;
}
