/** What people may do besides letting trains run and throwing points; each can be tried or left out. */
export const SWITCHES = {
  'turn back': {
    says: 'Trains turn back, within a block whose way back a signal guards, and at the end of a line',
    without: 'Trains do not turn back.',
    standard: true,
  },
  'throw back': {
    says: 'Points are thrown back while they still move',
    without: 'Points that move are let arrive before they are asked for again.',
    standard: true,
  },
  'one scan': {
    says: 'Two things happen within one scan of the rules: trains that go on, points that are asked for or come to lie, timers that end, and what fails',
    without: 'No two things happen within one scan of the rules.',
    standard: true,
  },
  'say free': {
    says: 'People look at blocks that nothing watches, and say which are free',
    without: 'Nobody says that a block is free which nothing watches.',
    standard: true,
  },
  'give up': {
    says: 'People look, and give up runs of trains that have not arrived, once nothing stands near the points that these hold',
    without: 'Nobody gives up a run for which points are held until a train has arrived.',
    standard: true,
  },
  'say taken': {
    says: 'People say that a block is taken which nothing watches, at any moment',
    without: 'Nobody says that a block is taken which nothing watches.',
    standard: false,
  },
  'false pulses': {
    says: 'A spot that gives pulses misses one, or gives one too many',
    without: 'No pulse of a spot is missed, and none comes twice.',
    standard: false,
  },
  hold: {
    says: 'Signals are held at stop by hand, and let go; a route that is set is cancelled at any moment',
    without:
      'Nobody holds a signal at stop by hand, or cancels a route while its signal is cleared and a train is in the block before it.',
    standard: false,
  },
  automatic: {
    says: 'Automatic working is switched off and on, and given pulses by hand, at any moment',
    without: 'Nobody switches automatic working off, or gives it a pulse by hand.',
    standard: false,
  },
  lift: {
    says: 'Trains are lifted off the track, and set down where they began',
    without: 'Nothing is lifted off the track or set down on it.',
    standard: false,
  },
} as const;
export type Switch = keyof typeof SWITCHES;
export const SWITCH_IDS = Object.keys(SWITCHES) as Switch[];
export const STANDARD_SWITCHES: ReadonlySet<Switch> = new Set(SWITCH_IDS.filter((id) => SWITCHES[id].standard));
