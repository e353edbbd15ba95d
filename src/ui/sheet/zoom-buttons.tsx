import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';

/** Smaller, all of it, larger. */
export function ZoomButtons({ zoom, showAll }: { zoom: (factor: number) => void; showAll: () => void }) {
  const buttons = [
    ['Zoom out', ZoomOut, () => zoom(1 / 1.4)],
    ['Fit the whole layout', Maximize2, showAll],
    ['Zoom in', ZoomIn, () => zoom(1.4)],
  ] as const;
  return (
    <div className="absolute bottom-1.5 left-1 z-10 flex">
      {buttons.map(([label, Icon, act]) => (
        <button
          key={label}
          type="button"
          className="cursor-pointer rounded-sm p-[3px] text-ink2 hover:bg-accent-tint"
          onClick={act}
          aria-label={label}
        >
          <Icon size={13} aria-hidden />
        </button>
      ))}
    </div>
  );
}
