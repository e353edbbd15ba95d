// @ts-nocheck
import { covering } from './fuzz/covering';
import { randomLayout } from './fuzz/random-layout';
import { withRandomPatterns } from './fuzz/random-patterns';
import { withRandomSensors } from './fuzz/random-sensors';

const [from, to] = process.argv.slice(2).map(Number);
let done = 0;
const t = performance.now();
const met = {};
for (let s = from; s < to; s++) {
  let d = withRandomPatterns(randomLayout(s), s);
  if (s % 2) d = withRandomSensors(d, s);
  let r;
  try {
    r = covering(d, [s * 2, s * 2 + 1], 4, 25000);
  } catch (e) {
    console.log(s, 'THROWS', e.stack.slice(0, 400));
    continue;
  }
  if (r.finished) done++;
  for (const h of r.met) met[h] = (met[h] ?? 0) + 1;
  for (const c of r.contradictions)
    console.log(
      s,
      d.name,
      c.says,
      d.sensors.map((x) => x.kind).join(),
      d.features
        .filter((f) => f.kind === 'signal')
        .map((f) => f.name + ':' + (f.patterns ?? []).join('+'))
        .join(' '),
      d.power,
    );
}
console.log(done, 'of', to - from, ((performance.now() - t) / 1000) | 0, 's', met);
