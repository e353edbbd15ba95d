import type { Declaration, Expr, Program, Role } from './expr';
import { RESERVED } from './write-text';

/** Wrong rule text: what, and where in it. */
export class RuleTextError extends Error {
  constructor(
    problem: string,
    readonly line: number,
    readonly column: number,
  ) {
    super(`Line ${line}, column ${column}: ${problem}`);
  }
}

interface Token {
  kind: 'word' | 'name' | 'number' | 'sign' | 'value' | 'end';
  text: string;
  line: number;
  column: number;
}

const LEXEME =
  /([ \t\r]+|--[^\n]*)|(\n)|(#(?:[A-Za-z_][A-Za-z0-9_]*|"(?:[^"\\\n]|\\.)*"))|((?:[A-Za-z_][A-Za-z0-9_]*|"(?:[^"\\\n]|\\.)*")(?:\.(?:[A-Za-z_][A-Za-z0-9_]*|"(?:[^"\\\n]|\\.)*"))*)|(\d+)|([(),:=])/y;

function tokens(text: string): Token[] {
  const found: Token[] = [];
  let line = 1;
  let lineStart = 0;
  LEXEME.lastIndex = 0;
  while (LEXEME.lastIndex < text.length) {
    const at = LEXEME.lastIndex;
    const match = LEXEME.exec(text);
    const place = { line, column: at - lineStart + 1 };
    if (!match) throw new RuleTextError(`I cannot read “${text.slice(at, at + 12)}”.`, place.line, place.column);
    if (match[1] !== undefined) continue;
    if (match[2] !== undefined) {
      line += 1;
      lineStart = at + 1;
      continue;
    }
    if (match[3] !== undefined) found.push({ kind: 'value', text: unquote(match[3].slice(1)), ...place });
    else if (match[4] !== undefined) {
      const word = match[4];
      if (RESERVED.has(word)) found.push({ kind: 'word', text: word, ...place });
      else found.push({ kind: 'name', text: unquote(word), ...place });
    } else if (match[5] !== undefined) found.push({ kind: 'number', text: match[5], ...place });
    else found.push({ kind: 'sign', text: match[6]!, ...place });
  }
  found.push({ kind: 'end', text: 'the end', line, column: text.length - lineStart + 1 });
  return found;
}

/** Quoted parts may hold anything; a dot inside one would be lost in a dotted name and is refused by the compiler. */
function unquote(dotted: string): string {
  return dotted.replace(/"(?:[^"\\]|\\.)*"/g, (quoted) => JSON.parse(quoted) as string);
}

/** Parses a whole program. Throws RuleTextError. */
export function readProgram(text: string): Program {
  const reader = new Reader(tokens(text));
  return reader.program();
}

/** Parses one expression. Throws RuleTextError. */
export function readExpr(text: string): Expr {
  const reader = new Reader(tokens(text));
  const expr = reader.expr();
  reader.expectEnd();
  return expr;
}

class Reader {
  private at = 0;
  constructor(private readonly list: Token[]) {}

  private get here(): Token {
    return this.list[this.at]!;
  }
  private fail(problem: string): never {
    throw new RuleTextError(problem, this.here.line, this.here.column);
  }
  private is(text: string): boolean {
    return (this.here.kind === 'word' || this.here.kind === 'sign') && this.here.text === text;
  }
  private take(text: string): void {
    if (!this.is(text)) this.fail(`“${text}” is expected here, not “${this.here.text}”.`);
    this.at += 1;
  }
  private takeIf(text: string): boolean {
    if (!this.is(text)) return false;
    this.at += 1;
    return true;
  }
  private takeKind(kind: Token['kind'], what: string): string {
    if (this.here.kind !== kind) this.fail(`${what} is expected here, not “${this.here.text}”.`);
    const text = this.here.text;
    this.at += 1;
    return text;
  }
  expectEnd(): void {
    if (this.here.kind !== 'end') this.fail(`“${this.here.text}” is left over.`);
  }

  program(): Program {
    this.take('scan');
    const scanMs = this.milliseconds();
    const enums: Record<string, string[]> = {};
    while (this.takeIf('values')) {
      const type = this.takeKind('name', 'The name of an enumeration');
      this.take('=');
      const values = [this.takeKind('name', 'A value')];
      while (this.takeIf(',')) values.push(this.takeKind('name', 'A value'));
      enums[type] = values;
    }
    const declarations: Declaration[] = [];
    while (this.here.kind !== 'end') declarations.push(this.declaration());
    return { scanMs, enums, declarations };
  }

  private declaration(): Declaration {
    const role = this.here.text;
    if (!['input', 'rule', 'output'].includes(role))
      this.fail(`A line starts with input, rule or output, not “${role}”.`);
    this.at += 1;
    const name = this.takeKind('name', 'A name');
    this.take(':');
    const type = this.takeKind('name', 'A type');
    if (role === 'input') return { name, type, role };
    this.take('=');
    return { name, type, role: role as Role, expr: this.expr() };
  }

  private milliseconds(): number {
    const amount = Number(this.takeKind('number', 'A time in ms'));
    this.take('ms');
    return amount;
  }

  expr(): Expr {
    if (!this.takeIf('if')) return this.either();
    const condition = this.either();
    this.take('then');
    const then = this.either();
    this.take('else');
    return { op: 'if', when: condition, then, otherwise: this.expr() };
  }
  private either(): Expr {
    return this.series('or', () => this.both());
  }
  private both(): Expr {
    return this.series('and', () => this.comparison());
  }
  private series(op: 'or' | 'and', part: () => Expr): Expr {
    const first = part();
    if (!this.is(op)) return first;
    const of = [first];
    while (this.takeIf(op)) of.push(part());
    return { op, of };
  }
  private comparison(): Expr {
    const left = this.unary();
    return this.takeIf('is') ? { op: 'is', left, right: this.unary() } : left;
  }
  private unary(): Expr {
    return this.takeIf('not') ? { op: 'not', of: this.unary() } : this.primary();
  }
  private primary(): Expr {
    const token = this.here;
    if (token.kind === 'value') {
      this.at += 1;
      return { op: 'value', value: token.text };
    }
    if (token.kind === 'name') {
      this.at += 1;
      return { op: 'name', name: token.text };
    }
    if (this.takeIf('true')) return { op: 'true' };
    if (this.takeIf('false')) return { op: 'false' };
    if (this.takeIf('(')) {
      const inner = this.expr();
      this.take(')');
      return inner;
    }
    return this.block();
  }

  private block(): Expr {
    const op = this.here.text;
    if (this.here.kind !== 'word') this.fail(`A condition is expected here, not “${op}”.`);
    this.at += 1;
    switch (op) {
      case 'PREVIOUS': {
        this.take('(');
        const name = this.takeKind('name', 'A name');
        this.take(')');
        return { op: 'previous', name };
      }
      case 'SR':
      case 'RS': {
        this.take('(');
        const set = this.expr();
        this.take(',');
        const reset = this.expr();
        return { op, set, reset, starts: this.starts() };
      }
      case 'TON':
      case 'TOF':
      case 'TP': {
        this.take('(');
        const input = this.expr();
        this.take(',');
        const ms = this.milliseconds();
        return { op, in: input, ms, starts: this.starts() };
      }
      case 'R_TRIG':
      case 'F_TRIG': {
        this.take('(');
        const input = this.expr();
        return { op, in: input, starts: this.starts() };
      }
      default:
        this.at -= 1;
        return this.fail(`A condition is expected here, not “${op}”.`);
    }
  }

  private starts(): boolean {
    this.take(',');
    const on = this.takeIf('on');
    if (!on) this.take('off');
    this.take(')');
    return on;
  }
}
