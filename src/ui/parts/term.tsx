'use client';
import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';

/** The trade's words in plain ones. Every panel explains them from this one list. */
export const GLOSSARY = {
  gap: 'A cut in one rail, so that the track on either side can be fed and watched separately.',
  hold: 'How long a block still counts as occupied after the last axle was seen, so that a moment of bad contact does not free it.',
  mark: 'A boundary between blocks that you declare without cutting a rail.',
  block: 'A stretch of track that one train at a time may hold.',
  detector: 'A device that senses current drawn by a locomotive, a lit car or a resistor axle between two gaps.',
  signal: 'Stands at the end of a block and tells a driver whether the blocks beyond it are free.',
  aspect: 'What a signal shows: stop, caution or clear.',
  turnout: 'Points: movable rails that lead a train straight on or to the diverging track.',
  clearance:
    'The place beyond which a vehicle on one leg no longer fouls the other leg; also called the fouling point.',
  tentative: 'Only an idea so far: nothing is cut or drilled yet.',
  direction: 'Where trains run both ways on one track, one direction at a time holds it.',
  resistor:
    'An axle bridged by a resistor (10 kΩ is common practice), so that a detector notices the car. If you solder one: mind the hot iron, and air the room.',
  seed: 'A number from which all chance in a run is drawn. The same seed gives the same run.',
  booster:
    'Makes the current in the track from a supply and what the command station says. All that one feeds is its district.',
} as const;

export function Term({ word, children }: { word: keyof typeof GLOSSARY; children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={250}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>
          <span className="term" tabIndex={0}>
            {children}
          </span>
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={4}
            className="zoomed z-50 max-w-72 rounded-lg border border-line bg-raised px-3 py-2 text-[0.8rem] text-ink shadow-lg"
          >
            {GLOSSARY[word]}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
