'use client';
import { MoreHorizontal } from 'lucide-react';
import { type ComponentType, type KeyboardEvent, useState } from 'react';
import type { EntryMenuProps } from './entry-menu-props';

const OPENS = new Set(['Enter', ' ', 'ArrowDown']);
/** Fetched when the first one is opened. */
let fetched: ComponentType<EntryMenuProps> | undefined;

/** What can be done with a layout beside opening it. */
export function EntryMenu(props: EntryMenuProps) {
  const [Menu, setMenu] = useState<ComponentType<EntryMenuProps>>();
  const open = async () => {
    fetched ??= (await import('./entry-menu-list')).EntryMenuList;
    const found = fetched;
    setMenu(() => found);
  };
  if (Menu) return <Menu {...props} />;
  const onKeyDown = (event: KeyboardEvent) => {
    if (!OPENS.has(event.key)) return;
    event.preventDefault();
    void open();
  };
  return (
    <button
      type="button"
      className="button"
      aria-haspopup="menu"
      aria-expanded={false}
      aria-label={`More for ${props.entry.name}`}
      onClick={() => void open()}
      onKeyDown={onKeyDown}
    >
      <MoreHorizontal size={14} aria-hidden /> More
    </button>
  );
}
