'use client';
import { useState } from 'react';
import type { PointsDivision } from '@/core/design';
import type { DivideWishes } from '@/core/divide';
import type { LayoutDocument } from '@/core/survey';
import { useWorkbench } from '@/ui/state/store';

const ROWS: { says: string; of(division: PointsDivision): string }[] = [
  { says: 'Gaps', of: ({ gaps }) => String(gaps) },
  { says: 'Sections, each with its detector', of: ({ sections }) => String(sections) },
  { says: 'Places for the longest train', of: ({ places }) => String(places) },
  {
    says: 'Locked while a train waits in the block that holds them',
    of: ({ waiting }) => waiting.join(', ') || 'none',
  },
  { says: 'Can move under an end of a train that nothing sees', of: ({ loose }) => loose.join(', ') || 'none' },
];

/** Points that are part of blocks, and points with sections of their own, side by side: what each costs, and what it leaves unlocked. */
export function ComparePoints({ document, wishes }: { document: LayoutDocument; wishes: DivideWishes }) {
  const compare = useWorkbench((s) => s.comparePoints);
  const [found, setFound] = useState<{ of: LayoutDocument; divisions: PointsDivision[] | 'asked' }>();
  if (!compare) return null;
  const current = found?.of === document ? found.divisions : undefined;
  if (current === undefined || current === 'asked')
    return (
      <button
        type="button"
        className="button mt-1"
        disabled={current === 'asked'}
        onClick={() => {
          setFound({ of: document, divisions: 'asked' });
          void compare(wishes).then((divisions) => setFound({ of: document, divisions }));
        }}
      >
        {current === 'asked' ? 'Dividing it both ways …' : 'Compare both'}
      </button>
    );
  return (
    <table className="mt-1 w-full text-left text-[0.85rem]" aria-label="Points in sections of their own and in blocks">
      <thead>
        <tr className="border-b border-line align-bottom">
          <th scope="col" />
          {current.map(({ turnoutsIn }) => (
            <th key={turnoutsIn} scope="col" className="py-1 pl-2">
              {turnoutsIn === 'blocks' ? 'in blocks' : 'of their own'}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {ROWS.map(({ says, of }) => (
          <tr key={says} className="border-b border-hair align-top">
            <th scope="row" className="py-1 font-normal text-ink2">
              {says}
            </th>
            {current.map((division) => (
              <td key={division.turnoutsIn} className="py-1 pl-2">
                {division.impossible ? 'no such division' : of(division)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
