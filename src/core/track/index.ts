/** The track graph compiled from the survey (edges, points of every kind, their motors, what fouls what), and the straightened drawing of it. */

export { type Drawing, type DrawnLine, distanceAt, type GoesOn, xOf } from './drawing';
export { type EdgeStretch, trackFrom } from './fouling';
export { compileTrack, type EdgeEnd, edgeAt, isAgainst, type Motor, type PointsNode, type TrackGraph } from './graph';
export { measureBetween, type Stretch } from './measure-between';
export { type Onward, type Over, onwardFrom } from './onward';
export { type Polarity, type RailSpan, railsOf } from './polarity';
export { straighten } from './straighten';
export { surveyFindings } from './survey-findings';
export { trackEndFindings } from './track-end-findings';
