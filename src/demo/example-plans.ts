import { block, blocks } from './plan-blocks';

/** The plans of the examples, in the words of the walk. */

export const CIRCUITS = `line Outer 560 circuit
line Inner 520 circuit
line Outer
crossover 200 to Inner 190 long 34 no 4
gap 170
255
400
500
signal 170 O1
signal 400 O2
signal 500 O3
${blocks([210, 'X'], [320, 'OA'], [450, 'OB'], [20, 'OC'])}
line Inner
gap 135
220
340
440
signal 135 I1
signal 340 I2
signal 440 I3
${blocks([280, 'IA'], [390, 'IB'], [20, 'IC'])}`;

export const LOOPS = `line Main 760
buffer 0
buffer
passing loop 140 to 330 left "West loop" long 196 no 4
passing loop 450 to 640 "East loop" long 196 no 4
gap 110
168
302
360
420
478
612
670
signal up 110 WE
signal down 168 WW
signal up 302 WS
signal down 360 SW
signal up 420 SE
signal down 478 EW
signal up 612 EE
signal down 670 EB
${blocks([50, 'West'], [150, 'W1'], [240, 'WM'], [320, 'W2'], [390, 'Single'], [460, 'E1'], [550, 'EM'], [630, 'E2'], [720, 'East'])}
line "West loop"
gap 30
166
signal down 30 LW
signal up 166 LS
${block(100, 'WL')}
line "East loop"
gap 30
166
signal down 30 LE
signal up 166 LB
${block(100, 'EL')}`;

export const REVERSE = `line Main 700
buffer 0
reverse loop 400 left Round long 270 no 4
gap 200
365
690
gap 430 both
signal up 200 A
signal down 200 Home
signal up 365 R
signal down 430 OutM
signal up 690 L1
signal down 690 L2
${blocks([100, 'Start'], [280, 'Approach'], [400, 'Throat'], [560, 'Loop'])}
line Round
gap 30 both
signal down 30 OutR
${block(150, 'Back')}`;

export const LADDER = `line Lead 330
buffer 0
ladder 80 roads 4 every 34 left Road long 170 no 4
buffer
gap 50
214
signal up 50 Y
signal down 214 R5
${blocks([20, 'Lead'], [130, 'Throat'], [280, 'R5'])}
${[1, 2, 3, 4].map((n) => `line "Road ${n}"\ngap 30\nsignal down 30 R${n}\n${block(100, `R${n}`)}`).join('\n')}`;

export const YARD = `line Lead 420
buffer 0
ladder 80 roads 6 every 34 left Road long 170 no 4
buffer
gap 50
282
signal up 50 Y
signal down 282 R7
${blocks([20, 'Lead'], [165, 'Throat'], [350, 'R7'])}
detector 410 optical
${[1, 2, 3, 4, 5, 6].map((n) => `line "Road ${n}"\ngap 30\nsignal down 30 R${n}\n${block(100, `R${n}`)}\ndetector 160 optical`).join('\n')}`;

export const PLASTIC = `line Main 520 circuit
passing loop 100 to 320 left Loop long 226 no 4
gap 70
128
292
350
470
signal up 70 W
signal down 128 MW
signal up 292 ME
signal down 350 E
signal up 470 PU
signal down 470 PD
${blocks([90, 'WT'], [210, 'M'], [310, 'ET'], [410, 'P1'], [500, 'P2'])}
line Loop
gap 30
196
signal down 30 LW
signal up 196 LE
${block(110, 'L')}`;

/** Two spots beside a boundary, one on either side. */
const pair = (at: number) => `detector ${at - 8} optical\ndetector ${at + 8} optical`;

export const SPOTS = `line Branch 560
buffer 0
buffer
mark 130
270
430
signal up 130 A
signal up 270 B
signal up 430 C
signal down 130 D
signal down 270 E
signal down 430 F
${[130, 270, 430].map(pair).join('\n')}
block 60 Quay
block 200 Cutting
block 350 Bank
block 500 Quarry`;

export const WORTH = `line Main 560 circuit
line Yard 230
line "Road 2" 150
line Main
turnout 300 left facing T1 to Yard no 4
area 0 to 280 Line for "Trains follow each other" admits automatic
gap 60
200
270
345
450
signal up 60 A
signal up 200 B
signal up 270 Home
signal up 345 C
signal up 450 D
${blocks([130, 'M1'], [235, 'M2'], [320, 'Fork'], [400, 'M3'], [510, 'M4'])}
line Yard
area 60 to 230 Yard for "Cars are sorted" admits on sight leaves "No signals inside: everything is slow, and everybody sees everything"
turnout 70 left facing T2 to "Road 2" no 4
buffer
gap 45
${blocks([60, 'Yard'])}
line "Road 2"
buffer`;

/** Two magnetic spots over a boundary, so near that both notice the same magnet at once. */
const magnets = (at: number) => `detector ${at - 0.5} reed\ndetector ${at + 0.5} reed`;

export const MAGNET = `line Main 600 circuit
mark 100
300
500
signal up 100 S1 two-aspect
signal up 300 S2 two-aspect
signal up 500 S3 two-aspect
${[100, 300, 500].map(magnets).join('\n')}
detector 200 toggle
block 200 Shed
block 400 Bank
block 550 Mill`;

export const BOARDS = `line Branch 800
buffer 0
buffer
gap 150
mark 350
550
detector 75
signal up 150 Board1
signal up 350 Board2
signal up 550 Board3
${[150, 350, 550].map((at) => `detector ${at + 5} optical\ndetector ${at + 100} chained board`).join('\n')}
block 100 Start
block 250 Weir
block 450 Ford
block 650 Beyond`;

export const ARMS = `line Main 900
line Branch 300
line Main
buffer 0
buffer
turnout 420 left T1 no 6 to Branch start
gap 200
400
470
650
signal up 200 Distant speed-signals
signal up 400 "Junction" junction-arms
signal up 650 Main
signal down 470 Trunk
signal down 200 Out
${blocks([50, 'Start'], [300, 'Approach'], [430, 'Points'], [600, 'M1'], [800, 'M2'])}
line Branch
buffer
gap 50
180
signal up 180 Quarry
signal down 50 Branch
${blocks([100, 'B1'], [250, 'B2'])}`;

export const DOUBLE = `line East 560 circuit
line West 520 circuit
line East
crossover 200 to West 190 long 34 no 4
gap 170
255
400
500
signal up 170 E1 speed-signals
signal up 400 E2 speed-signals
signal up 500 E3 speed-signals
${blocks([210, 'X'], [320, 'EA'], [450, 'EB'], [20, 'EC'])}
line West
gap 135
220
340
440
signal down 220 W1
signal down 340 W2
signal down 440 W3
${blocks([280, 'WA'], [390, 'WB'], [20, 'WC'])}`;

export const POST = `line Main 620
buffer 0
buffer
area 340 to 620 Yard for "Cars are sorted" admits operator empty caution leaves "Nothing inside: crews look out for each other"
gap 160
340
470
signal up 160 Main1
signal up 340 Yard1 authority-signal works "authority"
signal up 470 Yard2 authority-signal works "authority"
${blocks([80, 'M1'], [250, 'M2'], [400, 'Y1'], [540, 'Y2'])}`;

export const ARRIVAL = `line Main 520
line Spur 230
line Main
buffer 0
buffer
gap 150
turnout 170 left "T1" to Spur start works "arrival locking"
gap 200
signal up 150 A
signal down 200 MW
stop mark 310 up
stop mark 40 down
${blocks([80, 'W'], [160, 'P'], [350, 'M'])}
detector optical 310 "M mark"
detector optical 40 "W mark"
line Spur
buffer
gap 30
signal down 30 SW
stop mark 150 up
${blocks([120, 'S'])}
detector optical 150 "S mark"`;

export const FOUR_ROADS = `line Arrivals 560
line Departures 560
line "Road 1" 230
line "Road 4" 230
line Arrivals
buffer 0
buffer
gap 150
double crossover 180 to 252 with Departures 180 long 74 no 4
turnout 290 left "T5" to "Road 1" start
gap 330
signal up 150 A works "set routes"
signal down 330 R2 works "set routes"
${blocks([80, 'AA'], [270, 'X'], [450, 'Two'])}
line Departures
buffer 0
buffer
gap 150
gap 330
turnout 290 right "T6" to "Road 4" start
signal up 150 D works "set routes"
signal down 330 R3 works "set routes"
${blocks([80, 'DD'], [450, 'Three'])}
line "Road 1"
buffer
gap 40
signal down 40 R1 works "set routes"
${blocks([140, 'One'])}
line "Road 4"
buffer
gap 40
signal down 40 R4 works "set routes"
${blocks([140, 'Four'])}`;

export const BUTTONS = `line Main 360
line Mill 140
line Dairy 120
line Main
buffer 0
buffer
turnout 120 left "T1" to Mill start works "points indicator"
turnout 250 right "T2" to Dairy start works "points indicator"
line Mill
buffer
line Dairy
buffer`;
