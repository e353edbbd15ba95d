import { cm } from '@/core/measure';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { turnout } from '@/demo/build';
import { Draw } from '../../tools/fuzz/draw';

type End = { line: string; end: 'start' | 'end' };

/** A few lines with ends joined to ends and turnouts that lead anywhere: connected by chance, and not thought of by anybody. */
export function randomPlan(seed: number): LayoutDocument {
  const draw = new Draw(seed);
  const d = newDocument(`Plan ${seed}`);
  const count = draw.whole(2, 8);
  for (let i = 0; i < count; i++)
    d.lines.push({ id: `l${i}`, name: `Line ${i}`, length: cm(draw.whole(100, 900)), drawing: undefined });
  d.referenceLine = 'l0';
  const free: End[] = d.lines.flatMap(({ id }) => [
    { line: id, end: 'start' as const },
    { line: id, end: 'end' as const },
  ]);
  const take = () => free.splice(draw.below(free.length), 1)[0]!;
  const wanted = draw.below(free.length);
  for (let i = 0; i < wanted && free.length > 1; i++) {
    if (draw.chance(0.35)) d.joins.push({ id: `j${i}`, a: take(), b: take() });
    else {
      const leg = take();
      const line = draw.pick(d.lines);
      const at = draw.whole(10, line.length.tenthUm / 1e5 - 10);
      if (d.turnouts.some((other) => other.line === line.id && Math.abs(other.at.tenthUm / 1e5 - at) < 3)) continue;
      const facing = draw.pick(['up', 'down'] as const);
      d.turnouts.push({ ...turnout(`T${i}`, line.id, at, facing, 'left', ''), legs: [leg], clearance: cm(1) });
    }
  }
  const cuts = draw.below(4);
  for (let i = 0; i < cuts; i++) {
    const line = draw.pick(d.lines);
    const at = draw.whole(1, line.length.tenthUm / 1e5 - 1);
    const near = [...d.features, ...d.turnouts].some(
      (one) => one.line === line.id && Math.abs(one.at.tenthUm / 1e5 - at) < 1,
    );
    if (near) continue;
    d.features.push({ id: `g${i}`, kind: 'gap', line: line.id, at: cm(at), rail: 'both', certainty: 'fixed' });
  }
  return d;
}
