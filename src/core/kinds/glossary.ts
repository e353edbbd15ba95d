/** A thing of the trade: its one word on the screen, the engineer’s and the British one, its name in code, and words that are not used for it any more. */
export interface Entry {
  /** In plain words, for the hover text; tables that engineers know have the engineer’s word. */
  means: string;
  word: string;
  engineer?: string;
  british?: string;
  /** Its name in code, or the beginning of it. */
  code?: string;
  /** Identifiers that were it once: whole ones, as they would be written. */
  retiredNames?: readonly string[];
  /** Phrases that said it once. Many of their words are ordinary English, so that they stand here with their neighbours. */
  retiredPhrases?: readonly string[];
}

/** The trade’s words: the names in code, the words on the screen and the hover texts follow this table, and `docs/glossary.md` is written from it. */
export const GLOSSARY = {
  gap: {
    means: 'A cut in one rail, so that the track on either side can be fed and watched separately.',
    word: 'gap',
    british: 'insulated joint',
  },
  mark: { means: 'A boundary between blocks that you declare without cutting a rail.', word: 'block mark' },
  section: { means: 'What one detector watches; it may branch over turnouts.', word: 'section', code: 'section' },
  block: {
    means: 'A length of track that one train at a time may hold.',
    word: 'block',
    engineer: 'block section',
    code: 'block',
  },
  route: {
    means: 'Track from one signal to the next, or to the end, over points in given positions.',
    word: 'route',
    code: 'route',
    retiredNames: ['NamedWay', 'waysOf', 'waysTo', 'waysInto', 'waysOver', 'wayLock'],
    retiredPhrases: ['the points lie for the way', 'way lock', 'ways ahead of it'],
  },
  trafficSection: {
    means:
      'Track on which one direction of traffic at a time is allowed: trains run both ways on it, one after the other. So are the tracks of a crossing: one side at a time is let over.',
    word: 'single-line section',
    engineer: 'section under traffic direction',
    code: 'trafficSection',
    retiredNames: ['findStretches', 'directionMemory'],
    retiredPhrases: ['direction memory'],
  },
  running: {
    means:
      'The one direction in which trains run a line, where they do not run it both ways: no signal lets them onto it the other way.',
    word: 'direction of running',
    code: 'running',
  },
  detector: {
    means: 'A device that senses current drawn by a locomotive, a lit car or a resistor axle between two gaps.',
    word: 'detector',
    engineer: 'track circuit',
    code: 'detector',
    retiredNames: ['felt', 'feltIn', 'lastFelt'],
  },
  inferred: {
    means:
      'A block’s state that no detector sees: worked out from pulses of spots, from time, or from what people say.',
    word: 'inferred',
    code: 'inferred',
    retiredNames: ['Told', 'ToldBy', 'toldBlocks', 'toldFindings'],
    retiredPhrases: ['told by spots', 'told by counting', 'told otherwise'],
  },
  noseReleased: {
    means:
      'A block of a chain that is free again as soon as the nose of the train is at the next spot, whatever its tail does.',
    word: 'released by the nose',
    code: 'noseReleased',
    retiredPhrases: ['told by the nose'],
  },
  hold: {
    means:
      'How long a block still counts as occupied after the last axle was seen, so that a moment of bad contact does not free it.',
    word: 'hold time',
    code: 'hold',
  },
  signal: {
    means: 'Stands at the end of a block and tells a driver whether the blocks beyond it are free.',
    word: 'signal',
    code: 'signal',
  },
  aspect: { means: 'What a signal shows: stop, caution or clear.', word: 'aspect', code: 'aspect' },
  proceed: {
    means: 'A signal shows proceed when it may be passed.',
    word: 'shows proceed, is cleared',
    code: 'proceed',
    retiredPhrases: ['lets trains on', 'let trains on', 'lets trains go on'],
  },
  dropsTo: {
    means:
      'A signal drops when it goes from proceed to stop; in the face of a train that can no longer stop, too late.',
    word: 'drops to stop',
    code: 'drops',
    retiredNames: ['fell'],
    retiredPhrases: ['falls to stop', 'fall to stop', 'falls too late'],
  },
  displayed: {
    means: 'The aspects that all signals show at a time.',
    word: 'shown',
    code: 'displayed',
    retiredNames: ['Showings', 'showings', 'showingOf'],
  },
  turnout: {
    means: 'Movable rails, the points, that lead a train straight on or to the diverging track.',
    word: 'turnout',
    engineer: 'points',
    british: 'points',
    code: 'turnout',
  },
  motor: {
    means: 'What moves the points of a turnout over.',
    word: 'turnout motor',
    british: 'point motor',
    code: 'motor',
  },
  points: {
    means: 'The blades of a turnout, set for its straight or for its diverging leg.',
    word: 'set straight, set diverging',
    engineer: 'N, R: normal, reverse',
    code: 'points',
    retiredPhrases: ['points that lie wrong', 'points lie wrong', 'lies right and is'],
  },
  clearance: {
    means: 'The place beyond which a vehicle on one leg no longer fouls the other leg; also called the fouling point.',
    word: 'clearance point',
    engineer: 'fouling point',
    code: 'clearance',
  },
  routeLocking: {
    means: 'A turnout is held while a train is cleared over it, and for a time after.',
    word: 'route locking',
    code: 'routeLocking',
    retiredNames: ['wayLock'],
    retiredPhrases: ['way lock'],
  },
  detectorLocking: {
    means: 'A turnout is held while its track, or the track that fouls it, is occupied.',
    word: 'detector locking',
    code: 'detectorLocking',
    retiredNames: ['foulingLock'],
    retiredPhrases: ['fouling lock'],
  },
  lockingTable: {
    means:
      'A row for each route: what must be so before its signal is cleared, which routes it excludes, and when its turnouts may move again.',
    word: 'locking table',
    engineer: 'control table',
    code: 'lockingTable',
  },
  overlap: {
    means: 'The track beyond a signal at stop that is kept free in case a train stops too late.',
    word: 'overlap',
    code: 'overlap',
  },
  flank: {
    means: 'Points or a signal that keep others from running into the side of a route.',
    word: 'flank protection',
    code: 'flank',
  },
  conflict: {
    means:
      'Routes that must not be cleared at once: they need the same points otherwise, the same track, or track that fouls it.',
    word: 'conflicting routes',
    code: 'conflict',
  },
  approachLocking: {
    means:
      'The turnouts of a route stay locked for a time after its signal was put back, since a train may have seen it clear.',
    word: 'approach locking',
    code: 'approachLocking',
  },
  hazard: {
    means: 'What must never happen between trains, track and signals.',
    word: 'mishap',
    engineer: 'hazard',
    code: 'hazard',
    retiredNames: ['HARMS', 'HARM_IDS', 'HarmId', 'harmOfEvent', 'harmsNow'],
    retiredPhrases: ['such harm', 'another harm'],
  },
  counterexample: {
    means: 'The steps by which a mishap comes about, the fewest that lead to it.',
    word: 'how it happens',
    engineer: 'counterexample',
    code: 'counterexample',
    retiredNames: ['StoryStep', 'tellStory', 'steerStory'],
  },
  footprint: {
    means: 'Where a train stands, with all that it covers.',
    word: 'where it stands',
    code: 'footprint',
    retiredNames: ['Stance', 'stanceOf', 'stanceNow'],
  },
  committedPast: {
    means: 'A train that can no longer stop short of a signal is committed past it.',
    word: 'can no longer stop',
    code: 'committed',
    retiredNames: ['boundPast', 'boundNow', 'boundCarried'],
  },
  tolerance: {
    means: 'How trains of one kind, and delays, differ from what was measured.',
    word: 'tolerance',
    code: 'tolerance',
    retiredNames: ['spreadOf'],
  },
  effect: {
    means: 'What a step does to the rules: what they show on the way, what they leave as it was.',
    word: 'effect',
    code: 'effect',
    retiredNames: ['manner', 'manners', 'mannerOf'],
  },
  fix: {
    means: 'An edit that would mend what a finding is about.',
    word: 'fix',
    code: 'fix',
    retiredNames: ['Remedy', 'remedies'],
  },
  post: {
    means: 'Where an operator works the signals of an area.',
    word: 'operator post',
    british: 'signal box',
    code: 'post',
  },
  direction: {
    means: 'Where trains run both ways on one track, one direction at a time holds it.',
    word: 'traffic direction',
    code: 'trafficDirection',
  },
  push: {
    means:
      'The train that comes up behind releases the one that waits. One that fails to start is hit, unless a signal looks whether the route ahead is free.',
    word: 'push',
    code: 'push',
  },
  pull: {
    means: 'The train gone ahead releases the one that waits, once it is past a certain place.',
    word: 'pull',
    code: 'pull',
  },
  tentative: { means: 'Only an idea so far: nothing is cut or drilled yet.', word: 'tentative' },
  resistor: {
    means:
      'An axle bridged by a resistor (10 kΩ is common practice), so that a detector notices the car. If you solder one: mind the hot iron, and air the room.',
    word: 'resistor axle',
  },
  seed: {
    means: 'A number from which all chance in a run is drawn. The same number, the same run.',
    word: 'run number',
    code: 'seed',
  },
  booster: {
    means:
      'Makes the current in the track from a supply and what the command station says. All that one feeds is its district.',
    word: 'booster',
  },
} as const satisfies Record<string, Entry>;
export type GlossaryWord = keyof typeof GLOSSARY;
