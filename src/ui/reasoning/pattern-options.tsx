'use client';
import type { OptionView } from '@/core/patterns';
import { NumberField } from './number-field';
import { useEdit } from './selection-parts';

/** The options of the patterns at a thing. An empty field is refused; a button brings back the usual time. */
export function PatternOptions({ id, options }: { id: string; options: readonly OptionView[] }) {
  const edit = useEdit();
  return options.map(({ pattern, option, says, least, most, usual, set }) => (
    <div key={`${pattern} ${option} ${set}`} className="mt-2">
      <NumberField
        label={set === undefined ? `${says}, as is usual` : says}
        value={(set ?? usual) / 1000}
        least={least / 1000}
        most={most / 1000}
        onCommit={(seconds) => edit({ do: 'set option', id, pattern, option, value: Math.round(seconds * 1000) })}
      />
      {set !== undefined && (
        <button type="button" className="button mt-1" onClick={() => edit({ do: 'set option', id, pattern, option })}>
          As usual: {usual / 1000} s
        </button>
      )}
    </div>
  ));
}
