'use client';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { Window } from '@/ui/parts/window';
import { ComposeTrain } from './compose-train';
import { TakeUpTable } from './take-up-table';
import { VehicleTable } from './vehicle-table';

const TABS = { vehicles: 'Vehicles', trains: 'Trains', table: 'Take up a table' } as const;
type Tab = keyof typeof TABS;

/** The rolling stock: every vehicle in a table, and trains put together of them. */
export default function RosterWindow({ tab: first = 'vehicles', onClose }: { tab?: Tab; onClose: () => void }) {
  const [tab, setTab] = useState<Tab>(first);
  return (
    <Window
      wide
      title="Roster"
      says="Your vehicles as they were measured, and the trains that you make of them. Ctrl+Z takes back what was done."
      onClose={onClose}
    >
      <Tabs.Root
        value={tab}
        onValueChange={(next) => setTab(next as Tab)}
        className="flex h-[80vh] min-h-0 flex-col px-4 py-3"
      >
        <Tabs.List className="mb-3 flex gap-1" aria-label="Part of the roster">
          {Object.entries(TABS).map(([value, says]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="cursor-pointer rounded-md px-3 py-1 data-[state=active]:bg-accent data-[state=active]:text-on-accent"
            >
              {says}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="vehicles" className="flex min-h-0 flex-1 flex-col">
          <VehicleTable />
        </Tabs.Content>
        <Tabs.Content value="trains" className="min-h-0 flex-1 overflow-y-auto">
          <ComposeTrain />
        </Tabs.Content>
        <Tabs.Content value="table" className="flex min-h-0 flex-1 flex-col">
          <TakeUpTable onDone={() => setTab('vehicles')} />
        </Tabs.Content>
      </Tabs.Root>
    </Window>
  );
}
