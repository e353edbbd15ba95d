import type { ReactNode } from 'react';

/** Something on the drawing that can be picked by click, or by Enter while it has the focus; a mere picture without `onPick`. */
export function Pickable({
  label,
  onPick,
  children,
}: {
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
