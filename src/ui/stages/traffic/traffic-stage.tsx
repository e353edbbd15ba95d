'use client';
import { Panel } from '@/ui/reasoning/panel';
import { DesignStage } from '../design-stage';
import { Areas } from './areas';
import { Movements } from './movements';
import { NumberSignals } from './number-signals';
import { Schemes } from './schemes';

/** What is worth protecting, for whom, and what that takes. */
export function TrafficStage() {
  return (
    <DesignStage>
      <Panel title="Traffic">
        <Areas />
        <Movements />
        <Schemes />
        <NumberSignals />
      </Panel>
    </DesignStage>
  );
}
