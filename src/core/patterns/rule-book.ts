import type { FlagId, InputKindId, OutputKindId } from '../kinds';
import type { Declaration, Expr, Role, TerminalMark, Why } from '../logic';

type About = Omit<Why, 'pattern'>;

/** What of the plant a declaration belongs to: a kind, the number of the thing, and which of several it is there. */
type Of<Kind extends string> = readonly [kind: Kind, of: number, which?: string];

/** Gathers declarations in the order in which they are written, each with the pattern that it comes from. */
export class RuleBook {
  constructor(
    readonly declarations: Declaration[],
    private readonly pattern: string,
  ) {}

  input(of: Of<InputKindId>, name: string, type: string, why: About): void {
    this.add(name, type, 'input', undefined, why, of);
  }
  rule(name: string, type: string, expr: Expr, why: About): void {
    this.add(name, type, 'rule', expr, why);
  }
  /** A rule that is asked for by what it means. */
  flag(of: Of<FlagId>, name: string, type: string, expr: Expr, why: About): void {
    this.add(name, type, 'rule', expr, why, of);
  }
  output(of: Of<OutputKindId>, name: string, type: string, expr: Expr, why: About): void {
    this.add(name, type, 'output', expr, why, of);
  }
  private add(name: string, type: string, role: Role, expr: Expr | undefined, about: About, of?: Of<string>): void {
    const declaration: Declaration = { name, type, role, expr, why: { pattern: this.pattern, ...about } };
    if (of) declaration.terminal = markOf(of);
    this.declarations.push(declaration);
  }
}

const markOf = ([kind, of, which]: Of<string>): TerminalMark =>
  which === undefined ? { kind, of } : { kind, of, which };
