import { blockOf } from '../detection';
import { OUTPUTS, type OutputKind } from '../kinds';
import type { Declaration, Program } from '../logic';
import type { SignalReading } from '../signals';
import { lay } from './gather';
import * as names from './names';
import { type OwnRuleFault, withOwnRules } from './own-rules';
import { RuleBook } from './rule-book';
import type { Scheme } from './scheme';
import { writeOutputs } from './write-outputs';
import { writePoints } from './write-points';
import { writeLighting, writeSignals } from './write-signals';
import { writeBlocks } from './write-track';

/**
 * The rule program of a layout, with the rules of somebody's own in it: the single truth of what its signals and turnouts do; and what is
 * wrong with those rules.
 */
export function writeRules(scheme: Scheme): { program: Program; faults: OwnRuleFault[] } {
  const { rules } = scheme.document;
  const program = generate(scheme);
  return rules.length === 0 ? { program, faults: [] } : withOwnRules(program, rules, (name) => today(scheme, name));
}

/** A name of a rule that was written while blocks were known by where they begin. */
const today = ({ partition }: Scheme, name: string): string =>
  name.includes('@')
    ? name
        .split('.')
        .map((part) => blockOf(partition, part)?.id ?? part)
        .join('.')
    : name;

/**
 * Of the generated program the rules of some signals, and of the blocks on their routes: they are the same there. What else these read is not
 * in it, as if nothing were known of it.
 */
export function rulesOfSignals(scheme: Scheme, readings: readonly SignalReading[]): Program {
  const declarations: Declaration[] = [];
  const book = new RuleBook(declarations, 'composed');
  const { blocks } = scheme.partition;
  const onRoutes = new Set(
    readings.flatMap(({ index, rear }) => [
      rear,
      ...scheme.routesOf[index]!.flatMap(({ route }) => route.blocks.map(({ block }) => block)),
    ]),
  );
  lay('general', scheme, undefined, declarations);
  writeBlocks(
    scheme,
    book,
    blocks.filter(({ index }) => onRoutes.has(index)),
  );
  writeSignals(scheme, book, readings);
  return unnamed(scheme, declarations);
}

/** What patterns put into their slots, as rules. */
function generate(scheme: Scheme): Program {
  const declarations: Declaration[] = [];
  const book = new RuleBook(declarations, 'composed');
  lay('general', scheme, undefined, declarations);
  writeBlocks(scheme, book);
  writePoints(scheme, book);
  writeSignals(scheme, book);
  writeOutputs(scheme, book);
  writeLighting(scheme, book);
  for (const trafficSection of scheme.trafficSections.all) lay('memory', scheme, trafficSection, declarations);
  return programOf(scheme, declarations);
}

const programOf = (scheme: Scheme, declarations: Declaration[]): Program => ({
  ...unnamed(scheme, declarations),
  called: names.calledIn(scheme),
});
const unnamed = (scheme: Scheme, declarations: Declaration[]): Program => ({
  scanMs: 20,
  enums: {
    aspect: scheme.aspects.map(({ id }) => id),
    position: ['straight', 'diverging', 'between'],
    ...enumerationsOf(declarations),
  },
  declarations,
});

/** The values of outputs that are in use. */
function enumerationsOf(declarations: Declaration[]): Program['enums'] {
  const kinds: [string, OutputKind][] = Object.entries(OUTPUTS);
  return Object.fromEntries(
    kinds.flatMap(([kind, { values }]) =>
      values && declarations.some(({ terminal }) => terminal?.kind === kind) ? [[kind, [...values]]] : [],
    ),
  );
}
