import { ProofRun, steerStory } from '@/core/proof';
import { cm } from '@/core/measure';
import { newDocument } from '@/core/survey';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
const line = (id: string, length: number) => ({ id, name: id, length: cm(length), drawing: undefined });
const rates = { up: 80, down: 120, delayMs: 200, is: 'assumed' } as const;
const railcar = (length = 22, axles = [2, 5, length - 5, length - 2]) => vehicle('v-railcar', 'Railcar', length, axles, () => true, 200);
const at = (name: string, l: string, where: number, facing: any, kmh = 50) => train(`tr-${name}`, name, ['v-railcar'], kmh, { line: l, at: where, facing }, rates);
function diamond() { const d = newDocument('Diamond'); d.referenceLine = 'a'; d.lines = [line('a', 300), line('b', 300)]; d.features = [gap('g1', 'a', 100), gap('g2', 'b', 100)];
  for (const l of ['a', 'b']) { block(d, `${l}1`, l, 50); block(d, `${l}2`, l, 200); }
  d.crossings = [{ id: 'x1', name: 'X1', kind: 'diamond', a: { line: 'a', at: cm(180) }, b: { line: 'b', at: cm(180) }, angleDegrees: 30, clearance: cm(15), certainty: 'fixed' }];
  d.vehicles = [railcar()]; d.trains = [at('One', 'a', 60, 'up'), at('Two', 'b', 60, 'up')]; return d; }
function oval(clearanceCm: number, gapCm: number, sidingCm = 150) { const d = newDocument('Oval'); d.referenceLine = 'main'; d.lines = [line('main', 600), line('siding', sidingCm)]; d.joins = [{ id: 'j', a: { line: 'main', end: 'end' }, b: { line: 'main', end: 'start' } }];
  d.turnouts = [{ ...turnout('T1', 'main', 200, 'up', 'left', 'siding'), clearance: cm(clearanceCm) }];
  d.features = [gap('g1', 'main', 180), gap('g2', 'main', 200 + gapCm), gap('g3', 'siding', gapCm), gap('g4', 'main', 450), signal('A', 'main', 180, 'up'), signal('B', 'main', 450, 'up')];
  block(d, 'Points', 'main', 190); block(d, 'East', 'main', 300); block(d, 'West', 'main', 550); block(d, 'Siding', 'siding', sidingCm - 10); d.vehicles = [railcar()]; return d; }
const show = (d: any, on?: any) => { const run = new ProofRun(d, 3e5, on); while (!run.step(1000));
const p = run.result(); console.log(p.states, p.verdicts.filter(v => v.result === 'fails').map(v => [v.property, v.result, v.story?.map(s => s.says), v.property !== 'deadlock' ? { ...steerStory(d, run.explorer.model, v.property, v.story!), commands: 0 } : 0]));
for (const t of run.explorer.model.trains) for (const [i, q] of t.placements.entries()) console.log(t.name, i, q.turned, q.tape.map(t => t.piece + '.' + t.exit).join(' '), q.noseMm.map(x => x.toFixed(0)).join('-'), 'sec', q.sections, 'zones', q.zones, q.zonesThroughout, 'turns', q.turns, 'before', q.before.map(b => b.signal + '@' + b.at), q.advances.map(a => `${a.to}${a.seen ? 's' : ''}${a.offTheEnd ? 'OFF' : ''}g${a.gates}`).join(' ')); }
if (process.argv[2] === 'd') show(diamond());
else { const d = oval(20, 26, 60); d.vehicles = [railcar(44, [2, 5, 17, 20]), { ...railcar(), id: 'v-short' }];
    d.trains = [at('Waiting', 'main', 590, 'up'), { ...at('Passing', 'main', 440, 'up'), vehicles: ['v-short'] }]; show(d, new Set(['throw back', 'one scan'])); }
