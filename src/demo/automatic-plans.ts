import { blocks } from './plan-blocks';

/** The plans of the examples that trains work by themselves, in the words of the walk. */

/** A circuit with a station of two roads, one way; the turnout by which trains come in works so, and a spot stands on the line before it. */
const twoRoadStation = (works: string, spot?: number) => `line Main 800 circuit one way up
line "Road 2" 226
line Main
gap 70
128
292
350
580
turnout 100 left "T1" to "Road 2" start no 4 works "${works}"
turnout 320 left trailing "T2" to "Road 2" end no 4
signal up 580 P
signal up 70 H
signal up 292 O1
${blocks([90, 'Way in'], [210, 'One'], [310, 'Way out'], [450, 'Line'], [700, 'Approach'])}
${spot === undefined ? '' : `detector optical ${spot} Contact`}
line "Road 2"
gap 30
196
signal up 196 O2
${blocks([110, 'Two'])}`;

export const TURNS = twoRoadStation('takes turns');
export const THREE = twoRoadStation('two-road block');
export const ONE_PULSE = twoRoadStation('one-pulse station', 640);
export const OVERTAKEN = twoRoadStation('overtaking loop');

export const PUSH_PULL = `line Main 700 circuit one way up
gap 100
240
380
520
660
signal up 100 Station works "push by memory"
signal up 240 B
signal up 380 C
signal up 520 D
signal up 660 E
${blocks([50, 'Platform'], [170, 'BA'], [310, 'BB'], [450, 'BC'], [590, 'BD'])}`;

export const ROAM = `line Main 1000 circuit one way up
line North 226
line South 226
line Main
gap 70
128
292
350
570
628
792
850
turnout 100 left "T1" to North start no 4
turnout 320 left trailing "T2" to North end no 4
turnout 600 right "T3" to South start no 4
turnout 820 right trailing "T4" to South end no 4
signal up 70 N works "trains set routes"
signal up 292 N1 works "trains set routes"
signal up 570 S works "trains set routes"
signal up 792 S1 works "trains set routes"
${blocks([90, 'N in'], [210, 'One'], [310, 'N out'], [460, 'East'], [600, 'S in'], [710, 'Three'], [830, 'S out'], [950, 'West'])}
line North
gap 30
196
signal up 196 N2 works "trains set routes"
${blocks([110, 'Two'])}
line South
gap 30
196
signal up 196 S2 works "trains set routes"
${blocks([110, 'Four'])}`;
