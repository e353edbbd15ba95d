'use client';
import { Panel } from '@/ui/reasoning/panel';
import { DesignStage } from '../design-stage';
import { SeenEverywhere } from './seen-everywhere';

/** What is watched, and how well every train is seen there. */
export function DetectStage() {
  return (
    <DesignStage>
      <Panel title="Detect">
        <SeenEverywhere />
      </Panel>
    </DesignStage>
  );
}
