import { describe, expect, test } from 'vitest';
import { checkDesign, viewSignal } from '@/core/design';
import type { Expr } from '@/core/logic';
import { names, needsOf } from '@/core/patterns';
import { PATTERNS } from '@/core/patterns/pattern-list';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { randomLine } from './random-line';

const LAYOUTS = [smallValley(), learningOval(), ...Array.from({ length: 6 }, (_, i) => randomLine(i + 1))];

/** An expression in one line, to tell two apart. */
const text = (expr: Expr): string => JSON.stringify(expr);
/** The terms of a conjunction, however deep conjunctions stand in each other. */
const conjuncts = (expr: Expr): Expr[] => (expr.op === 'and' ? expr.of.flatMap(conjuncts) : [expr]);

describe('patterns and the one place that composes them', () => {
  test('each has an id of its own, and every rule says from which it comes', () => {
    const ids = PATTERNS.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const d of LAYOUTS)
      for (const { why } of compileSystem(d).program.declarations) expect([...ids, 'composed']).toContain(why?.pattern);
  });
  test('a signal is cleared for a way only when each term of every pattern is so', () => {
    let looked = 0;
    for (const d of LAYOUTS) {
      const {
        scheme,
        system: { program },
      } = checkDesign(d);
      const rule = new Map(program.declarations.map(({ name, expr }) => [name, expr]));
      for (const way of scheme.routesOf.flat()) {
        const { signal } = way.reading;
        const go = rule.get(names.go(way))!;
        const may = rule.get(names.may(way));
        const all = new Set([go, ...(may ? [may] : [])].flatMap(conjuncts).map(text));
        for (const { expr } of needsOf(scheme, way)) expect(all, signal.name).toContain(text(expr));
        looked += 1;
      }
    }
    expect(looked).toBeGreaterThan(60);
  });
  test('no term stands in a rule without a reason, and each reason is told of the signal', () => {
    for (const d of LAYOUTS) {
      const design = checkDesign(d);
      for (const ways of design.scheme.routesOf)
        for (const way of ways) {
          const told = viewSignal(design, way.reading.signal.id)!.routes.find(({ to }) => to === way.to)!;
          expect(told.needs).toEqual(needsOf(design.scheme, way).map(({ says, pattern }) => ({ says, pattern })));
          for (const { says } of told.needs) expect(says).toMatch(/^\S.*\S$/);
        }
    }
  });
});
