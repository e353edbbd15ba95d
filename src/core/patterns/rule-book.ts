import type { OutputKindId } from '../kinds';
import type { Declaration, Expr, Role, Why } from '../logic';

type About = Omit<Why, 'pattern'>;

/** Gathers declarations in the order in which they are written, each with the pattern that it comes from. */
export class RuleBook {
  constructor(
    readonly declarations: Declaration[],
    private readonly pattern: string,
  ) {}

  input(name: string, type: string, why: About): void {
    this.add(name, type, 'input', undefined, why);
  }
  rule(name: string, type: string, expr: Expr, why: About): void {
    this.add(name, type, 'rule', expr, why);
  }
  /** `of`: the number of the signal, motor, section or sensor that it commands or belongs to. */
  output(kind: OutputKindId, of: number, name: string, type: string, expr: Expr, why: About): void {
    this.add(name, type, 'output', expr, why);
    this.declarations.at(-1)!.commands = { kind, of };
  }
  private add(name: string, type: string, role: Role, expr: Expr | undefined, about: About): void {
    this.declarations.push({ name, type, role, expr, why: { pattern: this.pattern, ...about } });
  }
}
