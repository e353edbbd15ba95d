'use client';
import { useDeferredValue } from 'react';
import { Panel } from '@/ui/reasoning/panel';
import { useWorkbench } from '@/ui/state/store';
import { DesignStage } from '../design-stage';
import { ModuleInputs } from './module-inputs';
import { SeenEverywhere } from './seen-everywhere';

/** What is watched, and how well every train is seen there. */
export function DetectStage() {
  return (
    <DesignStage>
      <Panel title="Detect">
        <SeenEverywhere />
        <ModuleInputs document={useDeferredValue(useWorkbench((s) => s.document))} />
      </Panel>
    </DesignStage>
  );
}
