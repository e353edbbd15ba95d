'use client';
import { FormProvider } from 'react-hook-form';
import { OneOf } from '@/ui/parts/one-of';
import { AddForm } from './add-form';
import { LineFields } from './line-fields';
import { Standing } from './standing';
import { TOOL_OPTIONS } from './tools';
import { useAdding } from './use-adding';

/** Adding things: by typing a distance, or by pointing at the track while a tool is chosen. */
export function AddPanel() {
  const adding = useAdding();
  const { form, tool, choose, line } = adding;
  return (
    <FormProvider {...form}>
      <OneOf label="What to add" value={tool} options={TOOL_OPTIONS} onChange={choose} />
      <p className="mt-2 text-ink2">
        {tool === 'look'
          ? 'Choose what to add, or click on a thing to look at it.'
          : 'Click on the track, or type a distance from the start of its line, as you say it: 96 cm, 38 1/2", 3 ft 2 in, 40 scale ft.'}
      </p>
      {tool !== 'look' && <AddForm adding={adding} />}
      <LineFields key={line} line={line} />
      <Standing />
    </FormProvider>
  );
}
