'use client';
import { Copy, Download, MoreHorizontal, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { EntryMenuProps } from './entry-menu-props';

const item =
  'flex cursor-pointer select-none items-center gap-2 rounded-sm px-3 py-1 outline-none data-[highlighted]:bg-accent-tint';

/** The menu of a layout, open from the first. */
export function EntryMenuList({ entry, onCopy, onDelete }: EntryMenuProps) {
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className="button" aria-label={`More for ${entry.name}`}>
        <MoreHorizontal size={14} aria-hidden /> More
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={3}
          className="zoomed z-[60] rounded-md border border-edge bg-raised p-1 text-ink shadow-lg"
        >
          <DropdownMenu.Item className={item} onSelect={onCopy}>
            <Copy size={14} aria-hidden /> Copy
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} asChild>
            <a href={`/api/layouts/${entry.id}/export`} download>
              <Download size={14} aria-hidden /> Export
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 border-t border-hair" />
          <DropdownMenu.Item className={item} onSelect={onDelete}>
            <Trash2 size={14} aria-hidden /> Delete
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
