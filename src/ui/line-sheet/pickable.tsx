import type { ReactNode } from 'react';

/** Something on the drawing that can be picked by click, or by Enter while it has the focus. */
export function Pickable({
  label,
  onPick,
  tabbable = true,
  children,
}: {
  label: string;
  onPick: () => void;
  tabbable?: boolean;
  children: ReactNode;
}) {
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
