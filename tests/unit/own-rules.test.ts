import { describe, expect, test } from 'vitest';
import { Bench, checkDesign, ownRuleList } from '@/core/design';
import { compileProgram, constantOf, readExpr, TOO_MANY } from '@/core/logic';
import { ProofRun } from '@/core/proof';
import {
  applyEdit,
  type Edit,
  type LayoutDocument,
  readDocumentText,
  signalsOf,
  writeDocumentText,
} from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { Draw } from './random-line';

const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
const deskOf = (d: LayoutDocument, name: string) => {
  const bench = new Bench(checkDesign(d));
  const { id } = signalsOf(d).find((signal) => signal.name === name)!;
  const { text } = bench.rulesAbout(id);
  return { bench, id, text, read: (changed: string) => bench.readRules(id, changed) };
};
const own = (d: LayoutDocument, name: string, from: string, to: string): LayoutDocument => {
  const { text, read } = deskOf(d, name);
  expect(text).toContain(from);
  const { put, drop, faults } = read(text.replace(from, to));
  expect(faults.filter(({ stops }) => stops)).toEqual([]);
  return edited(d, { do: 'own rules', put, drop, about: name });
};
const oval = () => withTrains(ring('Six', 6, 120), 2, 120);

describe('rules of one’s own', () => {
  test('the text as it is changes nothing, for every signal of the demo', () => {
    const d = ondrelValley();
    for (const { name } of signalsOf(d)) {
      const { text, read } = deskOf(d, name);
      expect(read(text).put, name).toEqual([]);
      expect(
        read(text).faults.filter(({ stops }) => stops),
        name,
      ).toEqual([]);
    }
  });
  test('one stands in the place of the generated rule, is kept, read back, proved like any other, and put back', () => {
    const d = oval();
    const free = own(d, 'S1', 'not occupied.B1', 'true');
    expect(readDocumentText(writeDocumentText(free))).toMatchObject({ ok: true });
    const { program } = compileSystem(free);
    const changed = program.declarations.filter(({ generated }) => generated);
    expect(changed).toHaveLength(1);
    const verdict = (of: LayoutDocument) => {
      const run = new ProofRun(compileSystem(of), 400_000, new Set());
      while (!run.step(5000));
      return run.result().verdicts.find(({ property }) => property === 'two trains in a block')!.result;
    };
    expect([verdict(d), verdict(free)]).toEqual(['holds', 'fails']);
    const { text, read } = deskOf(free, 'S1');
    const back = read(text.replace('true', 'not occupied.B1'));
    expect(back.drop).toEqual([changed[0]!.name]);
    const again = edited(free, { do: 'own rules', put: [], drop: back.drop, about: 'S1' });
    expect(again.rules).toEqual([]);
    expect(compileSystem(again).program).toEqual(compileSystem(d).program);
  });
  test('an unknown name offers the nearest; wrong text is told where it is', () => {
    const { text, read } = deskOf(oval(), 'S1');
    const unknown = text.replace('occupied.B1', 'occupied.B11');
    expect(read(unknown).faults).toMatchObject([
      { offer: 'occupied.B1', stops: true, from: unknown.indexOf('occupied.B11') },
    ]);
    const broken = text.replace('not occupied.B1', 'not and occupied.B1');
    const [fault] = read(broken).faults;
    expect(broken.slice(fault!.from, fault!.to)).toBe('and');
    expect(read(broken).put).toEqual([]);
  });
  test('a rule that can never be true, is always true, or fights another is found', () => {
    const { text, read } = deskOf(oval(), 'S1');
    const says = (from: string, to: string) => read(text.replace(from, to)).faults.map((fault) => fault.says);
    expect(says('not occupied.B1', 'occupied.B1 and not occupied.B1')).toContain('This can never be true.');
    expect(
      says('rule free.S1.S2 : bool = not occupied.B1', 'rule free.S1.S2 : bool = occupied.B1 or not occupied.B1'),
    ).toContain('This is always true.');
    expect(
      says(
        'rule free.S1.S2 : bool = not occupied.B1',
        'rule free.S1.S2 : bool = RS(occupied.B1, occupied.B2 and not occupied.B2, off)',
      ),
    ).toContain('A memory in it never resets.');
    expect(read(`${text}\n\nrule free.S1.S2 : bool = true`).faults[0]!.says).toMatch(/fight each other/);
    expect(says('not occupied.B1', 'go.S1.S2')[0]).toMatch(/circle/);
  });
  test('what it asks of things that are gone leaves it out, told, and undo mends it', () => {
    const d = own(oval(), 'S1', 'not occupied.B1', 'not occupied.B1 and proceed.S3');
    const gone = edited(d, { do: 'delete', id: signalsOf(d).find(({ name }) => name === 'S3')!.id });
    expect(gone.rules).toEqual(d.rules);
    const design = checkDesign(gone);
    expect(() => compileProgram(design.system.program)).not.toThrow();
    expect(design.findings.filter(({ kind }) => kind === 'rule of your own that does not work')).toHaveLength(1);
    expect(checkDesign(d).findings.some(({ kind }) => kind === 'rule of your own that does not work')).toBe(false);
  });
  test('present values stand beside the rules', () => {
    const { bench, id } = deskOf(oval(), 'S1');
    bench.try({ trains: true, occupied: [], points: {} });
    const values = bench.valuesAbout(id);
    expect(['stop', 'caution', 'clear']).toContain(values['signal.S1']);
    expect(values['proceed.S1']).toBe(values['signal.S1'] === 'stop' ? 'false' : 'true');
  });
  test('any own rules, of random words, leave a program that compiles', () => {
    const d = oval();
    const { program } = compileSystem(d);
    const rules = program.declarations.filter(({ expr }) => expr).map(({ name }) => name);
    const words = [
      ...program.declarations.map(({ name }) => `"${name.split('.').join('"."')}"`),
      'true',
      'false',
      'nobody.there',
    ];
    for (let seed = 0; seed < 300; seed++) {
      const draw = new Draw(seed);
      const expr = (depth: number): string =>
        depth === 0 || draw.below(3) === 0
          ? draw.pick(words)
          : `(${expr(depth - 1)} ${draw.pick(['and', 'or', 'and not', 'is'])} ${expr(depth - 1)})`;
      const put = Array.from({ length: 1 + draw.below(4) }, () => ({
        name: draw.pick(rules),
        text: draw.below(9) === 0 ? 'and or' : expr(3),
      }));
      const design = checkDesign(edited(d, { do: 'own rules', put, drop: [], about: 'S1' }));
      expect(() => compileProgram(design.system.program), JSON.stringify(put)).not.toThrow();
    }
  });
});

describe('what a condition can never be is found exactly', () => {
  const enums = { lies: ['straight', 'diverging', 'between'] };
  const typeOf = (name: string) => (name.startsWith('points') ? 'lies' : 'bool');
  test.each<[string, 0 | 1 | undefined]>([
    ['a and not a', 0],
    ['a or not a', 1],
    ['a and b', undefined],
    ['points.T is #straight and points.T is #diverging', 0],
    ['points.T is #straight or points.T is #diverging or points.T is #between', 1],
    ['points.T is #straight or points.T is #diverging', undefined],
    ['a and not PREVIOUS(a)', undefined],
    ['PREVIOUS(a) and not PREVIOUS(a)', 0],
    ['TON(a, 10 ms, off) and not TON(a, 10 ms, off)', 0],
    ['(a or b) and (a or not b) and (not a or b) and (not a or not b)', 0],
  ])('%s', (text, value) => {
    expect(constantOf(readExpr(text), { enums }, typeOf)).toBe(value);
  });
  test('against every case of 300 random conditions of four names', () => {
    for (let seed = 0; seed < 300; seed++) {
      const draw = new Draw(seed);
      const text = (depth: number): string =>
        depth === 0
          ? draw.pick(['a', 'b', 'c', 'd', 'true', 'false'])
          : `(${draw.below(2) ? 'not ' : ''}${text(depth - 1)} ${draw.pick(['and', 'or'])} ${text(depth - 1)})`;
      const said = text(3);
      const outcomes = new Set(
        Array.from({ length: 16 }, (_, n) =>
          /** The words of the language are those of JavaScript’s own operators here. */
          Number(
            new Function(
              'a',
              'b',
              'c',
              'd',
              `return ${said.replaceAll('and', '&&').replaceAll('or', '||').replaceAll('not', '!')}`,
            )(!!(n & 1), !!(n & 2), !!(n & 4), !!(n & 8)),
          ),
        ),
      );
      expect(constantOf(readExpr(said), { enums }, typeOf), said).toBe(
        outcomes.size === 2 ? undefined : [...outcomes][0],
      );
    }
  });
  test('too many cases are said to be that', () => {
    const sum = (n: number): string =>
      n === 0 ? 'n0' : `(n${n} and not ${sum(n - 1)} or not n${n} and ${sum(n - 1)})`;
    /** A parity, and that it is not: each case has to be looked at to its end. */
    expect(constantOf(readExpr(`${sum(17)} and not ${sum(17)}`), { enums }, typeOf)).toBe(TOO_MANY);
  });
});

test('the rules of every example come back from their text', () => {
  for (const example of EXAMPLES) {
    const d = exampleLayout(example);
    for (const { name } of signalsOf(d)) {
      const { text, read } = deskOf(d, name);
      expect(read(text), `${example.name} ${name}`).toMatchObject({ put: [], drop: [] });
    }
  }
});

describe('rules of one’s own and what they speak of', () => {
  test('a value of the wrong type is told in the text, never thrown, and the other rules are kept', () => {
    const { text, read } = deskOf(oval(), 'S1');
    const wrong = [
      ['#stop', 'cannot be told'],
      ['signal.S2', 'an aspect where a yes or no is needed'],
      ['signal.S2 is #nonsense', 'nonsense'],
      ['#stop is #stop', 'cannot be told'],
      ['(if occupied.B1 then #stop else #clear) is #stop', 'cannot be told'],
    ] as const;
    for (const [to, says] of wrong) {
      const { faults, put } = read(text.replace('not occupied.B1', to));
      expect(faults.map((fault) => fault.says).join(), to).toContain(says);
      expect(faults.every(({ stops }) => stops)).toBe(true);
      expect(put).toEqual([]);
    }
    const rules = [
      { name: 'first', text: 'true' },
      { name: 'second', text: '#stop' },
      { name: 'third', text: 'first' },
    ];
    const d = edited(oval(), { do: 'own rules', put: rules, drop: [], about: 'mine' });
    const { system, findings } = checkDesign(d);
    const standing = system.program.declarations.filter(({ why }) => why?.pattern === 'your own rule');
    expect(standing.map(({ name }) => name)).toEqual(['first', 'third']);
    expect(findings.filter(({ kind }) => kind === 'rule of your own that does not work')).toHaveLength(1);
  });

  test('a rule beside those generated stays in the window in which it was written, and in the list of all', () => {
    const d = oval();
    const { id, text, read } = deskOf(d, 'S1');
    const { put, faults } = read(`${text}\n\nrule mine : bool = occupied.B1\n\nrule shown : aspect = signal.S2`);
    expect(faults.filter(({ stops }) => stops)).toEqual([]);
    expect(put.map(({ name, about, type }) => [name, about, type])).toEqual([
      ['mine', id, undefined],
      ['shown', id, 'aspect'],
    ]);
    const with2 = edited(d, { do: 'own rules', put, drop: [], about: 'S1' });
    const again = deskOf(with2, 'S1');
    expect(again.text).toContain('rule mine : bool = occupied.B1');
    expect(
      again.bench
        .rulesAbout(id)
        .rules.filter((rule) => rule.own)
        .map(({ name }) => name),
    ).toEqual(['mine', 'shown']);
    expect(again.read(again.text)).toEqual({ faults: [], put: [], drop: [] });
    const rows = ownRuleList(checkDesign(with2).system);
    expect(rows.map(({ written, text: says, aboutName, generated }) => [written, says, aboutName, generated])).toEqual([
      ['mine', 'occupied.B1', 'S1', undefined],
      ['shown', 'signal.S2', 'S1', undefined],
    ]);
    /** Taken out of the text, it is deleted. */
    const dropped = again.read(again.text.replace('rule mine : bool = occupied.B1\n\n', ''));
    expect(dropped.drop).toEqual(['mine']);
    expect(read(`${text}\n\nrule my.thing : bool = true`).faults[0]!.says).toMatch(/a name of one word/);
  });

  test('a rule follows the block it speaks of when a gap is moved, and one that is about something that is gone says so', () => {
    /** As a layout is before anybody has named its blocks. */
    const d = { ...oval(), blocks: [] };
    const name = checkDesign(d).scheme.partition.blocks[1]!.name;
    const own2 = own(d, 'S1', ' and settled', ` and settled and not occupied."${name}"`);
    const gap = d.features.find(({ kind }) => kind === 'gap')!;
    for (const mm of [1, -1, 30]) {
      const moved = edited(own2, { do: 'move', id: gap.id, at: { tenthUm: gap.at.tenthUm + mm * 10_000, typed: '' } });
      expect(checkDesign(moved).system.ownRuleFaults).toEqual([]);
      expect(ownRuleList(checkDesign(moved).system)[0]!.text).toContain('occupied');
    }
    /** Named, it is the same block. */
    const block = checkDesign(own2).scheme.partition.blocks[1]!;
    const first = checkDesign(own2).scheme.partition.pieces[block.pieces[0]!]!;
    const at = { line: first.line, at: { tenthUm: first.from + 10_000, typed: '' } };
    const called = edited(own2, { do: 'name block', anchor: at, as: block.id.slice('block '.length), name: 'Yard' });
    expect(checkDesign(called).system.ownRuleFaults).toEqual([]);
    expect(ownRuleList(checkDesign(called).system)[0]!.text).toContain('occupied.Yard');
    expect(compileSystem(called).key).toBe(compileSystem(own2).key);

    const gone = edited(own2, { do: 'delete', id: signalsOf(d).find((signal) => signal.name === 'S1')!.id });
    const design = checkDesign(gone);
    expect(design.system.program.declarations.some(({ why }) => why?.pattern === 'your own rule')).toBe(false);
    const [finding] = design.findings.filter(({ kind }) => kind === 'rule of your own that does not work');
    expect(finding!.says).toMatch(/no longer there/);
    expect(ownRuleList(design.system)[0]).toMatchObject({ about: undefined, generated: undefined });
    const mended = edited(gone, finding!.fixes[0]!.edit);
    expect(mended.rules).toEqual([]);
  });

  test('a rule that was written while blocks were known by where they begin still stands', () => {
    const d = { ...oval(), blocks: [] };
    const { partition } = checkDesign(d).scheme;
    const block = partition.blocks[1]!;
    const first = partition.pieces[block.pieces[0]!]!;
    const once = `block ${first.line}@${first.from}`;
    const rule = { id: 'ru1', name: 'mine', text: `occupied."${once}"`, type: undefined, about: undefined };
    const { system } = checkDesign({ ...d, rules: [rule] });
    expect(system.ownRuleFaults).toEqual([]);
    expect(ownRuleList(system)[0]!.problem).toBeUndefined();
    expect(system.program.declarations.find(({ name }) => name === 'mine')!.expr).toEqual({
      op: 'name',
      name: `occupied.${block.id}`,
    });
  });
});
