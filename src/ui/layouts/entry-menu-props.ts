/** A layout of the list, and what its menu does with it. */
export interface EntryMenuProps {
  entry: { id: string; name: string };
  onCopy: () => void;
  onDelete: () => void;
}
