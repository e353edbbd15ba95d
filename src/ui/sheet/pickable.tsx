import type { ReactNode } from 'react';

/** Something on the drawing that can be picked by click, or by Enter while it has the focus; a mere picture without `onPick`. */
export function Pickable({
  thing,
  label,
  onPick,
  children,
}: {
  /** What it is, as it is selected: its menu is about that. */
  thing: string;
  label: string;
  onPick: (() => void) | undefined;
  children: ReactNode;
}) {
  if (!onPick) return <g>{children}</g>;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      data-thing={thing}
      className="cursor-pointer"
      onClick={onPick}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onPick();
      }}
    >
      {children}
    </g>
  );
}
