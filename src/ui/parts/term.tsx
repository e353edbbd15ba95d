'use client';
import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';
import { GLOSSARY, type GlossaryWord } from '@/core/kinds';

/** A word of the trade, explained on hover and to the keyboard. */
export function Term({ word, children }: { word: GlossaryWord; children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={250}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>
          <span className="term" tabIndex={0}>
            {children}
          </span>
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={4}
            className="zoomed z-50 max-w-72 rounded-lg border border-line bg-raised px-3 py-2 text-[0.8rem] text-ink shadow-lg"
          >
            {GLOSSARY[word].means}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
