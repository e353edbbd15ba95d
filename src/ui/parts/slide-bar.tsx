'use client';
import { Slider } from 'radix-ui';

/** A moment or an amount on a bar, from 0 up. */
export function SlideBar({
  name,
  spoken,
  most,
  step,
  value,
  className = 'grow',
  onChange,
}: {
  name: string;
  /** The value as it is read aloud. */
  spoken?: string;
  most: number;
  step: number;
  value: number;
  className?: string;
  onChange: (value: number) => void;
}) {
  return (
    <Slider.Root
      className={`relative flex h-5 touch-none items-center ${className}`}
      min={0}
      max={Math.max(1, most)}
      step={step}
      value={[value]}
      /** The last step may be a short one. */
      onValueChange={([to]) => onChange(to! + step > most ? most : to!)}
    >
      <Slider.Track className="h-1 grow rounded-full bg-line">
        <Slider.Range className="absolute h-1 rounded-full bg-accent" />
      </Slider.Track>
      <Slider.Thumb
        className="block h-4 w-2.5 cursor-ew-resize rounded-sm border border-accent bg-raised"
        aria-label={name}
        aria-valuetext={spoken}
      />
    </Slider.Root>
  );
}
