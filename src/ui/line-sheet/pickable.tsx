import type { ReactNode } from 'react';

/** Something on the drawing that can be picked by click, or by Enter while it has the focus; a mere picture without `onPick`. */
export function Pickable({
  label,
  onPick,
  tabbable = true,
  children,
}: {
  label: string;
  onPick: (() => void) | undefined;
  tabbable?: boolean;
  children: ReactNode;
}) {
  if (!onPick) return <g>{children}</g>;
  return (
    <g
      role="button"
      tabIndex={tabbable ? 0 : -1}
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
