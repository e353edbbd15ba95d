import { useMemo } from 'react';
import type { LayoutDocument } from '@/core/survey';
import { useWorkbench } from '@/ui/state/store';
import type { ShownPoints } from './track-layer';

const NO_ASPECTS: string[] = [];

/** What is shown of a layout at work: while trains run, by the run; while something is tried by hand, by the trial. */
export function useShownState(document: LayoutDocument) {
  const tries = useWorkbench((s) => s.stage.tries ?? false);
  const trial = useWorkbench((s) => s.trial);
  const standing = useWorkbench((s) => s.design?.standing.blocks);
  const newestTried = useWorkbench((s) => (s.stage.knows === 'trial' ? s.tried : undefined));
  const tried = newestTried?.document === document ? newestTried : undefined;
  const newestBoard = useWorkbench((s) => (s.stage.knows === 'run' ? s.board : undefined));
  const board = newestBoard?.document === document ? newestBoard : undefined;

  const points: ShownPoints = useMemo(() => {
    const lies: ShownPoints = {};
    document.turnouts.forEach((turnout, i) => {
      lies[turnout.id] = board?.points[i] ?? trial.points[turnout.id] ?? turnout.lies[0]!;
    });
    return lies;
  }, [document.turnouts, board?.points, trial.points]);
  const locked = useMemo(
    () =>
      board ? new Set(document.turnouts.filter((_, i) => board.locked[i]).map((t) => t.id)) : new Set(tried?.locked),
    [document.turnouts, board, tried?.locked],
  );
  const occupied = useMemo(
    () =>
      new Set(
        board?.occupied ??
          (tries
            ? [...trial.occupied, ...(trial.trains ? (standing ?? []) : []), ...(tried?.moved?.blocks ?? [])]
            : []),
      ),
    [board?.occupied, tries, trial, standing, tried?.moved],
  );
  const aspects = board?.aspects ?? tried?.aspects ?? NO_ASPECTS;
  return useMemo(
    () => ({ board, tried, points, locked, occupied, aspects }),
    [board, tried, points, locked, occupied, aspects],
  );
}
