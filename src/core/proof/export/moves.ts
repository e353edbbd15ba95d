import type { MoveId } from '../moves';
import {
  fails,
  isCancelled,
  isGivenAPulse,
  isHeldByHand,
  isSetByPeople,
  pointsAreAskedFor,
  pointsArrive,
  pulseTooMany,
  timerEnds,
} from './moves-of-rules';
import {
  comesToAStand,
  goesOn,
  isGivenUp,
  isLiftedOff,
  isSaidToBeFree,
  isSaidToBeTaken,
  isSetDown,
  turnsBack,
  type WriteMove,
} from './moves-of-trains';

/** How each kind of step is written. */
export const WRITTEN: Readonly<Record<MoveId, WriteMove>> = {
  'goes on': goesOn,
  'timer ends': timerEnds,
  'points are asked for': pointsAreAskedFor,
  'points arrive': pointsArrive,
  'turns back': turnsBack,
  'comes to a stand': comesToAStand,
  'is worked by hand': isHeldByHand,
  'is lifted off': isLiftedOff,
  'is set down': isSetDown,
  'is said to be free': isSaidToBeFree,
  'is said to be taken': isSaidToBeTaken,
  'pulse too many': pulseTooMany,
  fails,
  'is given up': isGivenUp,
  'is set by people': isSetByPeople,
  'is cancelled': isCancelled,
  'is given a pulse': isGivenAPulse,
};
