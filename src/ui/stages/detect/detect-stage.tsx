'use client';
import { useDeferredValue } from 'react';
import { Panel } from '@/ui/reasoning/panel';
import { useWorkbench } from '@/ui/state/store';
import { DesignStage } from '../design-stage';
import { DivideTrack } from './divide-track';
import { HoldTimes } from './hold-times';
import { ModuleInputs } from './module-inputs';
import { MoveAlong } from './move-along';
import { SeenEverywhere } from './seen-everywhere';
import { SensitivityTable } from './sensitivity-table';

/** What is watched, and how well every train is seen there. */
export function DetectStage() {
  const document = useDeferredValue(useWorkbench((s) => s.document));
  return (
    <DesignStage>
      <Panel title="Detect">
        <DivideTrack />
        <SeenEverywhere />
        <MoveAlong document={document} />
        <SensitivityTable document={document} />
        <HoldTimes document={document} />
        <ModuleInputs document={document} />
      </Panel>
    </DesignStage>
  );
}
