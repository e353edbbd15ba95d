interface Keys {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

/** What a chord takes back, or does again; with Caps Lock too, which makes capitals of letters. */
export function undoOrRedo({ key, ctrlKey, metaKey, altKey, shiftKey }: Keys): 'undo' | 'redo' | undefined {
  if (!(ctrlKey || metaKey) || altKey) return undefined;
  const letter = key.toLowerCase();
  if (letter === 'y' || (letter === 'z' && shiftKey)) return 'redo';
  return letter === 'z' ? 'undo' : undefined;
}
