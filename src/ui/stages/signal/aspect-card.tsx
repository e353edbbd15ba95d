'use client';
import { useState } from 'react';
import type { Aspect, AspectSystem } from '@/core/kinds';
import { saySpeedLimit } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { PrintWindow } from '@/ui/parts/print-window';
import { HeadPicture } from '@/ui/sheet/head-picture';
import { PX_PER_MM } from '@/ui/sheet/on-paper';
import { useWorkbench } from '@/ui/state/store';

/** Papers by their sides in mm, ISO 216 and the usual American ones, and how many columns of aspects they take. */
const PAPERS = [
  { value: 'A6', says: 'A6, a postcard', width: 148, height: 105 },
  { value: 'A5', says: 'A5', width: 210, height: 148 },
  { value: 'A4', says: 'A4', width: 297, height: 210 },
  { value: 'index', says: 'index card, 5 by 3 in', width: 127, height: 76.2 },
  { value: 'letter', says: 'letter, 11 by 8½ in', width: 279.4, height: 215.9 },
] as const;
type Paper = (typeof PAPERS)[number]['value'];
/** What printers leave free on each side, in mm. */
const EDGE = 10;
/** What is wider than this is drawn larger, not fuller. */
const WIDEST_PX = 700;

/** The aspects of a system on a card for crews: picture, name, what to do, whom to call. */
export function AspectCard({ system, onClose }: { system: AspectSystem; onClose: () => void }) {
  const [paper, setPaper] = useState<Paper>('A5');
  const { width, height } = PAPERS.find(({ value }) => value === paper)!;
  const [w, h] = [width - 2 * EDGE, height - 2 * EDGE];
  const across = Math.min(WIDEST_PX, w * PX_PER_MM);
  const card = (title: string) => (
    <svg
      className="drawing block"
      style={{ width: `${w}mm`, height: `${h}mm` }}
      viewBox={`0 0 ${across} ${(across * h) / w}`}
      role="img"
      aria-label={title}
    >
      <foreignObject width="100%" height="100%">
        <Face system={system} columns={w / h > 1.2 ? 2 : 1} />
      </foreignObject>
    </svg>
  );
  return (
    <PrintWindow
      title={`Card: ${system.name}`}
      says="What each aspect looks like, what to do, and whom to call. Print at 100 %."
      choices={<Choice label="Paper" labelled="unseen" value={paper} options={PAPERS} onChange={setPaper} />}
      name={`Card of ${system.name}`}
      sheets={card}
      onClose={onClose}
    />
  );
}

function Face({ system, columns }: { system: AspectSystem; columns: number }) {
  const unit = useWorkbench((s) => s.document.shownUnit);
  const name = useWorkbench((s) => s.document.name);
  const speedOf = ({ speed, speedAtNext }: Aspect) =>
    [
      speed && `At most ${saySpeedLimit(speed, unit)}${speed.share === undefined ? '' : ' of your speed'}.`,
      speedAtNext && `At the next signal at most ${saySpeedLimit(speedAtNext, unit)}.`,
    ]
      .filter(Boolean)
      .join(' ');
  return (
    <div className="text-ink" style={{ fontSize: 13, lineHeight: 1.25 }}>
      <h4 className="mb-2 border-b border-line pb-1 font-bold">
        {system.name} <span className="font-normal text-ink2">{name}</span>
      </h4>
      <div className="grid gap-x-5 gap-y-2" style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }}>
        {[...system.aspects].reverse().map((aspect) => (
          <div key={aspect.id} className="flex items-start gap-3">
            <HeadPicture system={system} aspect={aspect} scale={1.3} />
            <p>
              <strong>{aspect.id}</strong>
              <br />
              {aspect.means} {speedOf(aspect)}
              {aspect.calls && (
                <>
                  <br />
                  Call {aspect.calls}.
                </>
              )}
            </p>
          </div>
        ))}
      </div>
    </div>
  );
}
