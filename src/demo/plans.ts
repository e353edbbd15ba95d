import { type LayoutDocument, newDocument } from '@/core/survey';
import { readSurvey, withAdditions } from '@/core/walk';

/** A small layout of our own, in the words of the walk. */
export interface Plan {
  name: string;
  text: string;
}

/** Twenty plans of the usual forms, to look at how they are drawn. */
export const PLANS: readonly Plan[] = [
  { name: 'Closed circuit', text: 'line Main 480 circuit\ngap 60\n180\n300\n420' },
  {
    name: 'Terminus',
    text: 'line Main 600\nbuffer 0\nbuffer\nsiding 150 left trailing "Platform 2" long 130\nsiding 120 trailing "Platform 3" long 100',
  },
  {
    name: 'Point to point',
    text: 'line Main 700\nbuffer 0\nbuffer\npassing loop 120 to 300 left West\npassing loop 420 to 600 East',
  },
  {
    name: 'Two circuits and a crossover',
    text: 'line Outer 560 circuit\nline Inner 500 circuit\nline Outer\ncrossover 200 to Inner 190 long 34',
  },
  {
    name: 'Double track',
    text: 'line Up 600 circuit\nline Down 590 circuit\nline Up\ncrossover 120 to Down 150 long 34\nline Down\ncrossover 380 left to Up 420 long 34',
  },
  {
    name: 'Double crossover',
    text: 'line Up 500\nline Down 500\nline Up\ndouble crossover 200 to 270 with Down 200 long 72',
  },
  { name: 'Reverse loop', text: 'line Main 620\nbuffer 0\nreverse loop 380 left Round long 210' },
  {
    name: 'Loops at both ends',
    text: 'line Main 900\nline Back 230\nline Main\nstart joins Back start\nreverse loop 640 Round long 230\nturnout trailing left 240 to Back end',
  },
  { name: 'Triangle', text: 'line Main 640\nbuffer 0\nbuffer\ntriangle 200 to 440 left Branch legs 150 long 180' },
  { name: 'Ladder of five roads', text: 'line Lead 300\nbuffer\nladder 60 roads 5 every 28 left Road long 150' },
  {
    name: 'Hidden yard',
    text: 'line Main 640 circuit\nhidden 0 to 300\npassing loop 30 to 290 left Store 1 long 262\npassing loop 60 to 260 Store 2 long 202',
  },
  { name: 'Junction', text: 'line Main 600\nline Branch 300\nbuffer\nline Main\nturnout 240 to Branch start' },
  { name: 'Diamond', text: 'line Main 400\nline Cross 360\nline Main\ncrossing 200 with Cross 180 angle 30 clear 8' },
  {
    name: 'Double slip',
    text: 'line Main 400\nline Cross 360\nline Main\ncrossing 200 "double slip" with Cross 180 angle 15 clear 12',
  },
  { name: 'Three-way turnout', text: 'line Main 420\nturnout three-way 120' },
  {
    name: 'Wye',
    text: 'line Main 120\nline Left 200\nline Right 220\nline Main\nturnout wye 120 to Left start straight Right start',
  },
  {
    name: 'Branch of a branch',
    text: 'line Main 700\nsiding 120 left Quarry long 160\nline Quarry\nsiding 40 left Pit long 90\nline Main\npassing loop 300 to 520 Halt long 230\nline Halt\nsiding 60 Goods long 80',
  },
  { name: 'Lift-out', text: 'line Main 520 circuit\nlift-out 240\n280\nsiding 330 left Works long 110' },
  { name: 'Edge of the layout', text: 'line Main 480\nedge\nedge 0\npassing loop 140 to 340 left Loop' },
  {
    name: 'Figure of eight',
    text: 'line Main 900 circuit\ncrossing 200 with Main 640 angle 60 clear 8\nsiding 320 Spur long 90',
  },
];

/** A plan as a layout. Throws where a row of it is wrong: a plan is ours. */
export function planned({ name, text }: Plan): LayoutDocument {
  const bare = newDocument(name);
  const { additions, bad } = readSurvey(text, bare);
  if (bad[0]) throw new Error(`${name}, row ${bad[0].row}: ${bad[0].problem}`);
  return withAdditions(bare, additions);
}
