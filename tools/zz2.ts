// @ts-nocheck
import { operate } from './fuzz/covering';
import { randomLayout } from './fuzz/random-layout';
import { withRandomPatterns } from './fuzz/random-patterns';
import { withRandomSensors } from './fuzz/random-sensors';
import { Random, Rehearsal, harmsNow, spokenEvent } from '../src/core/simulation';
import { STANDARD_SWITCHES, STANDING_TICKS } from '../src/core/proof';
const [s, seed, from, to] = process.argv.slice(2).map(Number);
let d = withRandomPatterns(randomLayout(s), s); if (s%2) d = withRandomSensors(d, s);
console.log(JSON.stringify(d.features.map(f=>[f.kind,f.name,f.line,f.at.tenthUm/1e5,f.governs,f.patterns,f.system])), JSON.stringify(d.sensors.map(x=>[x.name,x.kind,x.anchor.at.tenthUm/1e5,x.holdMs,x.patterns])), JSON.stringify(d.trains.map(t=>[t.name,t.start,t.vehicles])), JSON.stringify(d.lines.map(l=>[l.id,l.length.tenthUm/1e5])));
const run = new Rehearsal(d, seed); const random = new Random(seed, 77);
for (const t of run.plant.trains) run.command({ kind: 'run', train: t.figures.id, on: false });
let last='';
const log = (x)=>{ if (run.tick>=from && run.tick<=to) console.log(run.tick, x); };
const orig = run.command.bind(run); run.command = (c)=>{ const r=orig(c); log('CMD '+JSON.stringify(c)+' '+(r??'')); return r; };
for (let tick=0; tick<to; tick++) {
  if (tick===STANDING_TICKS) for (const t of run.plant.trains) run.command({ kind: 'run', train: t.figures.id, on: true });
  if (tick>STANDING_TICKS) operate(run, random, seed%2===0, STANDARD_SWITCHES);
  run.step((e)=>log(JSON.stringify(e, (k,v)=> k==='aspect'? v.id : v)));
  const h = harmsNow(run).map(h=>h.id+' '+h.signals.map(x=>run.scheme.readings[x].signal.name)).join('; ');
  if (h!==last) { log('HARMS '+h); last=h; }
}
