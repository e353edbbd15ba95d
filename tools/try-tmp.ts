import { ProofRun, steerStory } from '@/core/proof';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { passingLoop } from '@/demo/passing-loop';

const t = (name: string, d: any, most = 3e6, on?: any) => {
  const a = performance.now();
  const run = new ProofRun(d, most, on);
  while (!run.step(20000))
    if (performance.now() - a > 40000) {
      console.log(name, run.progress);
      break;
    }
  const p = run.result();
  const m = run.explorer.model;
  console.log(
    `\n== ${name}: ${p.states} states ${p.moves} moves ${(performance.now() - a).toFixed(0)} ms finished ${p.finished} words ${m.words} placements ${m.trains.map((t) => t.placements.length)}`,
  );
  for (const v of p.verdicts)
    if (v.result !== 'holds') {
      console.log(v.property, v.result, v.story?.map((s) => s.says).join(' | '));
      if (v.story && process.argv[3])
        console.log('   ->', JSON.stringify({ ...steerStory(d, m, v.property, v.story), commands: 0 }));
    }
};
const which = process.argv[2];
const S = (...x: string[]) => new Set(x);
const all: Record<string, () => void> = {
  oval: () => t('oval', learningOval()),
  one: () => t('one', withTrains(ring('One', 4, 120), 1, 120)),
  six: () => t('six', withTrains(ring('Six', 6, 120), 3, 120)),
  loop1: () => t('loop, one train', passingLoop(['up'])),
  loop1bare: () => t('loop1 bare', passingLoop(['up']), 3e6, S()),
  loop1turn: () => t('loop1 turn', passingLoop(['up']), 3e6, S('turn back')),
  loopbare: () => t('loop bare', passingLoop(['up', 'down']), 3e6, S()),
  looponescan: () => t('loop one scan', passingLoop(['up', 'down']), 3e6, S('one scan')),
  loopback: () => t('loop throw back', passingLoop(['up', 'down']), 3e6, S('throw back')),
  loopturn: () => t('loop turn', passingLoop(['up', 'down']), 3e6, S('turn back')),
  loop: () => t('loop', passingLoop(['up', 'down'])),
  twelve: () => t('twelve 25 cm', withTrains(ring('Twelve', 12, 25), 1, 25)),
};
all[which!]!();
