import type { Expr } from '../logic';
import { names } from '../patterns';
import type { ProofModel } from './model';
import type { Placement } from './placements';

/**
 * The plant alone under perfect protection, as a model for the Spin checker: each train is a number, its placement, and goes on
 * when no other stands in a block it would enter. Its states are those of `countBlockSteps` with every train told apart.
 */
export function writePlantPromela(trains: { placements: Placement[]; start: number }[]): string {
  const steps = trains.flatMap(({ placements }, t) =>
    placements.flatMap((placement, p) =>
      placement.advances.map(({ to }) => {
        const taken = trains.flatMap((other, o) =>
          o === t
            ? []
            : other.placements.flatMap((theirs, q) =>
                theirs.blocks.some((block) => placements[to]!.blocks.includes(block)) ? [`at${o} != ${q}`] : [],
              ),
        );
        return `  :: atomic { at${t} == ${p}${taken.map((free) => ` && ${free}`).join('')} -> at${t} = ${to} }`;
      }),
    ),
  );
  return [
    ...trains.map(({ start }, t) => `byte at${t} = ${start};`),
    'active proctype layout() {',
    'do',
    ...steps,
    '  od',
    '}',
    '',
  ].join('\n');
}

/**
 * Plant and rule program as a model for the Spin checker: the same steps as `ProofModel`, written out from its tables and from
 * the rules’ own expressions. Each harm sets a flag and ends the run there; `-DHARM=harmBlock` makes that flag a failure.
 */
export function writePromela(model: ProofModel): string {
  const { document, scheme, compiled, trains } = model;
  const lines: string[] = [];
  const say = (...text: string[]) => lines.push(...text);
  const slotOf = (name: string) => `value[${compiled.slots.get(name)!}]`;
  let memory = 0;
  const timers: { word: number; ton: boolean }[] = [];
  const scan: string[] = [];
  let temporary = 0;
  const { enums } = model.program;
  const types = new Map(model.program.declarations.map((d) => [d.name, d.type]));
  const typeOf = (expr: Expr): string => {
    if (expr.op === 'name' || expr.op === 'previous') return types.get(expr.name)!;
    if (expr.op === 'if') return typeOf(expr.then) === '?' ? typeOf(expr.otherwise) : typeOf(expr.then);
    return expr.op === 'value' ? '?' : 'bool';
  };
  /** The text of an expression; what it remembers is written to the scan before it. */
  const text = (expr: Expr, type: string): string => {
    switch (expr.op) {
      case 'true':
      case 'false':
        return expr.op === 'true' ? '1' : '0';
      case 'value':
        return String(enums[type]!.indexOf(expr.value));
      case 'name':
        return slotOf(expr.name);
      case 'previous':
        return `before[${compiled.slots.get(expr.name)!}]`;
      case 'not':
        return `(1 - ${text(expr.of, 'bool')})`;
      case 'and':
        return `(${expr.of.map((part) => text(part, 'bool')).join(' && ')})`;
      case 'or':
        return `(${expr.of.map((part) => text(part, 'bool')).join(' || ')})`;
      case 'is': {
        const kind = typeOf(expr.left) === '?' ? typeOf(expr.right) : typeOf(expr.left);
        return `(${text(expr.left, kind)} == ${text(expr.right, kind)})`;
      }
      case 'if':
        return `(${text(expr.when, 'bool')} -> ${text(expr.then, type)} : ${text(expr.otherwise, type)})`;
      case 'SR':
      case 'RS': {
        const [set, reset] = [text(expr.set, 'bool'), text(expr.reset, 'bool')];
        const m = memory++;
        scan.push(
          expr.op === 'SR'
            ? `memo[${m}] = (${set} || ((1 - ${reset}) && memo[${m}]));`
            : `memo[${m}] = ((1 - ${reset}) && (${set} || memo[${m}]));`,
        );
        return `memo[${m}]`;
      }
      case 'R_TRIG':
      case 'F_TRIG': {
        const input = text(expr.in, 'bool');
        const m = memory++;
        const t = temporary++;
        scan.push(
          `temp[${t}] = ${expr.op === 'R_TRIG' ? `(${input} && (1 - memo[${m}]))` : `(memo[${m}] && (1 - ${input}))`};`,
          `memo[${m}] = ${input};`,
        );
        return `temp[${t}]`;
      }
      default: {
        const input = text(expr.in, 'bool');
        const [last, counts] = [memory, memory + 2];
        memory += 3;
        const may = `ends[${timers.length}]`;
        timers.push({ word: last, ton: expr.op === 'TON' });
        const t = temporary++;
        scan.push(`temp[${t}] = ${input};`);
        if (expr.op === 'TON') scan.push(`memo[${counts}] = (temp[${t}] && (memo[${counts}] || ${may}));`);
        else if (expr.op === 'TOF')
          scan.push(`memo[${counts}] = ((1 - temp[${t}]) && (memo[${last}] || memo[${counts}]) && (1 - ${may}));`);
        else scan.push(`memo[${counts}] = (((temp[${t}] && (1 - memo[${last}])) || memo[${counts}]) && (1 - ${may}));`);
        scan.push(`memo[${last}] = temp[${t}];`);
        return expr.op === 'TOF' ? `(temp[${t}] || memo[${counts}])` : `memo[${counts}]`;
      }
    }
  };
  for (const declaration of compiled.order) {
    const value = text(declaration.expr!, declaration.type);
    scan.push(`${slotOf(declaration.name)} = ${value};`);
  }
  const first = { ...model.present, ...model.memoryNow() };
  say(`/* ${document.name.replace(/[^\w ]/g, '')}: plant and rule program. */`);
  say(`byte value[${compiled.slotCount}];`, `byte before[${compiled.slotCount}];`, `bit memo[${Math.max(1, memory)}];`);
  say(`hidden byte temp[${Math.max(1, temporary)}];`, `hidden byte ends[${Math.max(1, timers.length)}];`);
  say(
    `hidden byte was[${Math.max(1, memory)}];`,
    'hidden byte changed; hidden byte moved; hidden byte i; byte work = 1; byte which;',
  );
  say('bit harmBlock; bit harmOpposing; bit harmPoints; bit harmWrong;');
  for (const t of trains.keys()) say(`byte at${t} = ${first.at[t]};`, `bit sure${t} = ${first.committed[t]};`);
  for (const t of document.turnouts.keys()) say(`byte lies${t} = ${first.turnouts[t]};`);
  const among = (t: number, numbers: number[]) => `(${numbers.map((n) => `at${t} == ${n}`).join(' || ')})`;
  const where = (t: number, pick: (p: Placement, number: number) => boolean) =>
    trains[t]!.placements.flatMap((p, n) => (pick(p, n) ? [n] : []));

  say('inline inputs() {');
  for (const section of scheme.partition.sections) {
    const seen = trains.flatMap((_, t) => {
      const numbers = where(t, (p) => p.sections.includes(section.index));
      return numbers.length > 0 ? [among(t, numbers)] : [];
    });
    for (const id of section.detectors) {
      const detector = document.detectors.find((d) => d.id === id)!;
      say(`  ${slotOf(names.detect(detector.name))} = ${seen.length > 0 ? `(${seen.join(' || ')})` : '0'};`);
    }
  }
  for (const [t, turnout] of document.turnouts.entries())
    say(`  ${slotOf(names.points(turnout.name))} = (lies${t} > 1 -> 2 : lies${t});`);
  say('  skip', '}');
  say('inline scan() {', ...scan.map((line) => `  ${line}`));
  const { previous } = model;
  for (const slot of previous)
    say(`  if :: before[${slot}] != value[${slot}] -> before[${slot}] = value[${slot}]; changed = 1 :: else fi;`);
  say('  skip', '}');
  say('inline notice() {');
  for (const [t, train] of trains.entries())
    for (const reading of scheme.readings) {
      const numbers = train.placements.flatMap((p, n) => (p.facing === reading.index ? [n] : []));
      if (numbers.length > 0)
        say(
          `  if :: ${among(t, numbers)} && ${slotOf(names.shows(reading.signal.name))} != 0 -> sure${t} = 1 :: else fi;`,
        );
    }
  say('  skip', '}');
  say('inline settle() {', '  inputs();', '  do', '  :: changed = 0; moved = 0;');
  if (memory > 0) say(`     i = 0; do :: i < ${memory} -> was[i] = memo[i]; i++ :: else -> break od;`);
  say('     scan();');
  if (memory > 0)
    say(
      `     i = 0; do :: i < ${memory} -> if :: was[i] != memo[i] -> changed = 1 :: else fi; i++ :: else -> break od;`,
    );
  say('     notice();');
  document.turnouts.forEach((turnout, t) => {
    const drive = slotOf(names.drive(turnout.name));
    const over = trains.flatMap((_, k) => {
      const numbers = where(k, (p) => p.over.includes(t));
      return numbers.length > 0 ? [among(k, numbers)] : [];
    });
    say(
      `     if :: (lies${t} % 2) != ${drive} -> lies${t} = 2 + ${drive}; moved = 1; harmPoints = harmPoints || ${over.length > 0 ? `(${over.join(' || ')})` : '0'} :: else fi;`,
    );
  });
  say('     if :: moved -> inputs() :: else -> if :: changed == 0 -> break :: else fi fi', '  od;', '  skip', '}');
  say('active proctype layout() {', '  d_step {');
  const since = new Set(compiled.timers.map((at) => at + 1));
  first.state.forEach((value, m) => {
    if (value !== 0 && m < memory && !since.has(m)) say(`    memo[${m}] = ${value};`);
  });
  for (const slot of previous) if (first.before[slot]) say(`    before[${slot}] = ${first.before[slot]};`);
  say('    skip', '  };');
  say(
    'end: do',
    '  :: work == 0 && HARM -> assert(false)',
    '  :: work == 0 && (harmBlock || harmOpposing || harmPoints || harmWrong) -> break',
  );
  const calm = 'work == 0 && !(harmBlock || harmOpposing || harmPoints || harmWrong)';
  for (const [t, train] of trains.entries())
    for (const [p, placement] of train.placements.entries())
      for (const advance of placement.advances) {
        const may: string[] = [calm, `at${t} == ${p}`];
        if (advance.signal >= 0)
          may.push(`(sure${t} || ${slotOf(names.shows(scheme.readings[advance.signal]!.signal.name))} != 0)`);
        if (advance.turnout >= 0 && advance.facing) may.push(`(lies${advance.turnout} % 2) == ${advance.position}`);
        const into = train.placements[advance.to]!;
        const harms = trains.flatMap((other, o) => {
          if (o === t) return [];
          const opposed = other.sides.flatMap((sides, q) =>
            train.sides[advance.to]!.some((side) => sides.includes(side ^ 1)) ? [q] : [],
          );
          const shared = where(
            o,
            (q, n) => !opposed.includes(n) && q.blocks.some((block) => into.blocks.includes(block)),
          );
          return [
            ...(opposed.length > 0 ? [`harmOpposing = harmOpposing || ${among(o, opposed)};`] : []),
            ...(shared.length > 0 ? [`harmBlock = harmBlock || ${among(o, shared)};`] : []),
          ];
        });
        const wrong = advance.turnout >= 0 ? `lies${advance.turnout} != ${advance.position}` : '';
        say(
          `  :: d_step { ${may.join(' && ')} -> at${t} = ${advance.to};${advance.signal >= 0 ? ` sure${t} = 0;` : ''} ${wrong ? `if :: ${wrong} -> harmWrong = 1 :: else ${harms.length > 0 ? `-> ${harms.join(' ')} skip ` : ''}fi;` : harms.join(' ')} work = 1 }`,
        );
      }
  timers.forEach(({ word, ton }, i) => {
    const counts = ton ? `memo[${word}] == 1 && memo[${word + 2}] == 0` : `memo[${word + 2}] == 1`;
    say(`  :: d_step { ${calm} && ${counts} -> which = ${i}; work = 2 }`);
  });
  document.turnouts.forEach((turnout, t) => {
    for (const [lies, to] of [
      [0, 'diverging'],
      [1, 'straight'],
    ] as const)
      say(
        `  :: d_step { ${calm} && lies${t} == ${lies} -> which = ${compiled.slots.get(names.ask(turnout.name, to))}; work = 3 }`,
      );
    say(`  :: d_step { ${calm} && lies${t} > 1 -> lies${t} = lies${t} - 2; work = 1 }`);
  });
  say('  :: d_step { work == 2 -> inputs(); ends[which] = 1; scan(); ends[which] = 0; which = 0; work = 1 }');
  say('  :: d_step { work == 3 -> inputs(); value[which] = 1; scan(); value[which] = 0; which = 0; work = 1 }');
  say('  :: d_step { work == 1 -> settle(); work = 0 }');
  say('  od', '}', '');
  return lines.join('\n');
}
