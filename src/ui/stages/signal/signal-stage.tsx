'use client';
import { useCallback } from 'react';
import { Panel } from '@/ui/reasoning/panel';
import { COVERAGE } from '@/ui/sheet/lanes';
import { useWorkbenchStore } from '@/ui/state/store';
import { DesignStage } from '../design-stage';
import { AspectSystems } from './aspect-systems';
import { ByHand } from './by-hand';
import { MoveTrain } from './move-train';
import { ProposedSignals } from './proposed-signals';
import { ShownNow } from './shown-now';
import { STOPPING } from './stopping-lane';
import { WhenItFails } from './when-it-fails';
import { WhoSeesWhat } from './who-sees-what';

const LANES = [COVERAGE, STOPPING];

/** Axles set down and turnouts thrown by hand; every signal answers. */
export function SignalStage() {
  const store = useWorkbenchStore();
  const throwTurnout = useCallback(
    (id: string) => {
      const { document, trial, set } = store.getState();
      const lies = trial.points[id] ?? document.turnouts.find((t) => t.id === id)?.lies[0];
      const to = lies === 'straight' ? 'diverging' : 'straight';
      set({ trial: { ...trial, points: { ...trial.points, [id]: to } } });
    },
    [store],
  );
  return (
    <DesignStage onTurnout={throwTurnout} lanes={LANES}>
      <Panel title="Reasoning">
        <ByHand />
        <ProposedSignals />
        <MoveTrain />
        <WhoSeesWhat />
        <WhenItFails />
        <AspectSystems />
        <ShownNow />
      </Panel>
    </DesignStage>
  );
}
