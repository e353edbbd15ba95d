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

/** A dotted name as text; parts that are no plain words are quoted: signal."4.2". */
export function writeName(name: string): string {
  return name
    .split('.')
    .map((part) => (WORD.test(part) && !RESERVED.has(part) ? part : JSON.stringify(part)))
    .join('.');
}

const BINDS: Record<string, number> = { if: 0, or: 1, and: 2, is: 3, not: 4 };

/** The text form of an expression; it parses back to the same tree. */
export function writeExpr(expr: Expr): string {
  const inner = (part: Expr, least: number): string => {
    const text = writeExpr(part);
    return (BINDS[part.op] ?? 9) < least ? `(${text})` : text;
  };
  switch (expr.op) {
    case 'true':
    case 'false':
      return expr.op;
    case 'value':
      return `#${expr.value}`;
    case 'name':
      return writeName(expr.name);
    case 'previous':
      return `PREVIOUS(${writeName(expr.name)})`;
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
      return `${expr.op}(${writeExpr(expr.set)}, ${writeExpr(expr.reset)}, ${onOff(expr.starts)})`;
    case 'TON':
    case 'TOF':
    case 'TP':
      return `${expr.op}(${writeExpr(expr.in)}, ${expr.ms} ms, ${onOff(expr.starts)})`;
    case 'R_TRIG':
    case 'F_TRIG':
      return `${expr.op}(${writeExpr(expr.in)}, ${onOff(expr.starts)})`;
  }
}

const onOff = (starts: boolean) => (starts ? 'on' : 'off');

export function writeDeclaration(declaration: Declaration): string {
  const head = `${declaration.role} ${writeName(declaration.name)} : ${declaration.type}`;
  return declaration.expr ? `${head} = ${writeExpr(declaration.expr)}` : head;
}

/** The whole program as text, one declaration a line. */
export function writeProgram(program: Program): string {
  const lines = [`scan ${program.scanMs} ms`];
  for (const [type, values] of Object.entries(program.enums)) lines.push(`values ${type} = ${values.join(', ')}`);
  for (const declaration of program.declarations) lines.push(writeDeclaration(declaration));
  return `${lines.join('\n')}\n`;
}
