import { and, type Expr, name, not } from '../logic';
import type { TurnoutPosition } from '../survey';
import { combine, gather, lay } from './gather';
import * as names from './names';
import type { RuleBook } from './rule-book';
import type { Scheme } from './scheme';

/** A command is remembered, so that a turnout is driven to where it was last sent; it is refused while anything locks it. */
export function writePoints(scheme: Scheme, book: RuleBook): void {
  for (const motor of scheme.partition.graph.motors) {
    const { id: about, name: called, lies } = motor;
    book.input(['contact', motor.index], names.points(motor), 'position', { about, yes: `${called} lies {}`, no: '' });
    lay('motor', scheme, motor, book.declarations);
    const locks = gather('lock', scheme, motor, book.declarations);
    book.flag(['locked', motor.index], names.locked(motor), 'bool', combine('lock', locks), {
      about,
      yes: `${called} is locked`,
      no: `${called} may be thrown`,
    });
    const asked = (position: TurnoutPosition): Expr =>
      and(combine('asked', gather('asked', scheme, { motor, position })), not(name(names.locked(motor))));
    book.output(
      ['drive', motor.index],
      names.drive(motor),
      'bool',
      { op: 'RS', set: asked('diverging'), reset: asked('straight'), starts: lies === 'diverging' },
      { about, yes: `${called} is driven to diverging`, no: `${called} is driven to straight` },
    );
  }
}

/** What shows beside points how their motors lie. */
export function writeIndicators(scheme: Scheme, book: RuleBook): void {
  for (const motor of scheme.partition.graph.motors) {
    const terms = gather('indicator', scheme, motor);
    if (terms.length === 0) continue;
    book.output(['indicator', motor.index], names.indicator(motor), 'indicator', combine('indicator', terms), {
      about: motor.id,
      yes: `The indicator of ${motor.name} shows {}`,
      no: '',
    });
  }
}
