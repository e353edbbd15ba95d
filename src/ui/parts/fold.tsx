'use client';
import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import type { ReactNode } from 'react';

/** Something that is folded away until it is asked for. */
export function Fold({ title, open, children }: { title: ReactNode; open?: boolean; children: ReactNode }) {
  return (
    <Collapsible.Root defaultOpen={open} className="mt-2">
      <Collapsible.Trigger className="group flex cursor-pointer items-center gap-1 rounded-sm text-left font-medium">
        <ChevronRight size={14} aria-hidden className="shrink-0 group-data-[state=open]:rotate-90" />
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content className="mt-2">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
