import type { Recording, RehearsalFrame, Sample, SpokenEvent, TrainFrame } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import type { Explain } from './design';

/** Signals, turnouts and blocks at a moment of a rehearsal, and how trains stand. */
export interface Board extends Omit<RehearsalFrame, 'tick' | 'trains'> {
  /** The layout that is rehearsed: turnouts and signals are in its order. */
  document: LayoutDocument;
  trains: Omit<TrainFrame, 'spans' | 'mmPerS'>[];
}

/** How far a rehearsal has come. */
export interface Course {
  hash: string;
  notPlaced: string[];
  /** The farthest moment of this course, and how many commands are still to come in it. */
  reached: number;
  toCome: number;
}
export const NO_COURSE: Course = { hash: '', notPlaced: [], reached: 0, toCome: 0 };

/** The rehearsal as it stands. */
export interface RehearsalSlice {
  /** A run that the rehearsal is to begin with. */
  recording?: Recording;
  /** The run that was left when another stage was opened, and the layout that it was of. */
  leftRun?: { recording: Recording; document: LayoutDocument };
  /** The present moment: it changes with every step of every train. */
  frame?: RehearsalFrame;
  /** What of it changes seldom: the same object until something in it is different. */
  board?: Board;
  course: Course;
  /** What has happened in it, and where the trains were, in the order in which they were told. */
  events: SpokenEvent[];
  samples: Sample[];
  explainRun?: Explain;
}
