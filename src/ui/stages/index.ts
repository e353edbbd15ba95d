import { type FindingKind, stageOfFinding } from '@/core/findings';
import { detect } from './detect';
import type { StageKind } from './kind';
import { lock } from './lock';
import { prove } from './prove';
import { rehearse } from './rehearse';
import { signal } from './signal';
import { survey } from './survey';
import { traffic } from './traffic';

/** The stages of the work, in order; none is locked behind another. */
export const STAGES: readonly [StageKind, ...StageKind[]] = [survey, traffic, detect, signal, lock, prove, rehearse];

/** The stage in which a kind of finding is put right. */
export const stageOf = (kind: FindingKind): StageKind => STAGES.find(({ id }) => id === stageOfFinding(kind))!;
export type { StageKind } from './kind';
