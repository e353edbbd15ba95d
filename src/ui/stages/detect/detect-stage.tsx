'use client';
import { useDeferredValue } from 'react';
import { Panel } from '@/ui/reasoning/panel';
import { useWorkbench } from '@/ui/state/store';
import { DesignStage } from '../design-stage';
import { HoldTimes } from './hold-times';
import { ModuleInputs } from './module-inputs';
import { SeenEverywhere } from './seen-everywhere';

/** What is watched, and how well every train is seen there. */
export function DetectStage() {
  const document = useDeferredValue(useWorkbench((s) => s.document));
  return (
    <DesignStage>
      <Panel title="Detect">
        <SeenEverywhere />
        <HoldTimes document={document} />
        <ModuleInputs document={document} />
      </Panel>
    </DesignStage>
  );
}
