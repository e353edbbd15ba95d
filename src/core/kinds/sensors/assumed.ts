import type { SensorKind } from './kind';
import { NOTHING } from './notices';

/** What tells of a block without noticing anything in it. Common practice, no source. */
const assumed = (
  own: Pick<SensorKind, 'title' | 'names' | 'means' | 'getsWrong' | 'holdMs' | 'tells' | 'mark'>,
): SensorKind => ({
  notices: NOTHING,
  reachMm: 0,
  sees: 'is told of a train',
  seesNothing: 'is told of none',
  wants: 'sign of itself',
  ...own,
});

/** Two steps of 7 to 14 s are common practice, no source. */
export const timer = assumed({
  title: 'Timer',
  names: 'T',
  means: 'Its block counts as occupied for a time after a spot in it noticed a train, then as free.',
  getsWrong:
    'It says free after its time, whether the train has gone or not: one that stands, turns back or comes out of a hidden yard is not known.',
  holdMs: 20_000,
  tells: 'for a time',
  mark: 'M0 -5A5 5 0 1 1 -0.01 -5M0 -3V0H3',
});
export const virtualEnd = assumed({
  title: 'Virtual end',
  names: 'V',
  means:
    'Where watched track ends: its block counts as people say, by a button; a spot in it says that a train has come.',
  getsWrong:
    'It says free while nobody has said otherwise, whatever stands there; and occupied, long after the train has gone, until somebody says so.',
  holdMs: 0,
  tells: 'as people say',
  mark: 'M-4 -4V4H4M0 0H4',
});
export const chainedBoard = assumed({
  title: 'Chained board',
  names: 'C',
  means:
    'Its block counts as occupied from when a spot in it notices the nose of a train until the spot of the next board does.',
  getsWrong:
    'It says free while the rest of a train is still in its block; occupied for good where no next spot is passed; and nothing of what comes in past no spot.',
  holdMs: 0,
  tells: 'by the nose',
  mark: 'M-5 -3H1V3H-5ZM1 0H5',
});
export const toggle = assumed({
  title: 'Toggle',
  names: 'Z',
  means:
    'A relay that each pulse of a spot in its block turns over: occupied by the one as a train comes in, free by the next as it goes out.',
  getsWrong:
    'One pulse missed, or one too many, and it is out of step for good: free with a train in it, and occupied when it has gone.',
  holdMs: 0,
  tells: 'by turns',
  mark: 'M-5 2H0L4 -3M5 2H3',
});
