'use client';
import { useState } from 'react';
import { Choice } from '@/ui/parts/choice';
import { PrintWindow } from '@/ui/parts/print-window';
import { PX_PER_MM } from '@/ui/sheet/on-paper';

/** What one label says. */
export interface WireLabel {
  input: string;
  name: string;
  kind: string;
  where: string;
}

const ROWS = 9;
const COLUMNS = 3;
const EACH = ROWS * COLUMNS;
/** A page of either paper, lying, with room for any printer’s edge, holds these, in mm. */
const LABEL = { width: 80, height: 18, gap: 2 };
const COPIES = [
  { value: '1', says: 'once, for the module' },
  { value: '2', says: 'twice, for both ends of the wire' },
] as const;

/** Labels for the wires of inputs, to be printed and cut: in the order of the inputs. */
export function LabelSheet({ labels, onClose }: { labels: readonly WireLabel[]; onClose: () => void }) {
  const [copies, setCopies] = useState<(typeof COPIES)[number]['value']>('2');
  const all = labels.flatMap((label) => Array.from({ length: Number(copies) }, () => label));
  const pages = Array.from({ length: Math.ceil(all.length / EACH) }, (_, page) =>
    all.slice(page * EACH, (page + 1) * EACH),
  );
  const [width, height] = [COLUMNS * LABEL.width, ROWS * LABEL.height];
  const sheets = (title: string) =>
    pages.map((own, page) => (
      <svg
        key={page}
        className="drawing block"
        style={{ width: `${width}mm`, height: `${height}mm` }}
        viewBox={`0 0 ${width * PX_PER_MM} ${height * PX_PER_MM}`}
        role="img"
        aria-label={`${title} ${page + 1} of ${pages.length}`}
      >
        {own.map((label, i) => (
          <OneLabel key={i} label={label} column={i % COLUMNS} row={Math.floor(i / COLUMNS)} />
        ))}
      </svg>
    ));
  return (
    <PrintWindow
      title="Labels for the wires"
      says={`Each ${LABEL.width} by ${LABEL.height} mm, in the order of the inputs. Print at 100 %, and cut along the lines.`}
      choices={
        <>
          <Choice label="Each label" labelled="unseen" value={copies} options={COPIES} onChange={setCopies} />
          <output className="text-ink2">
            {all.length} labels on {pages.length === 1 ? '1 page' : `${pages.length} pages`}
          </output>
        </>
      }
      name="Labels, page"
      sheets={sheets}
      onClose={onClose}
    />
  );
}

const LONGEST_WHERE = 34;

function OneLabel({
  label: { input, name, kind, where },
  column,
  row,
}: {
  label: WireLabel;
  column: number;
  row: number;
}) {
  const [x, y] = [column * LABEL.width * PX_PER_MM, row * LABEL.height * PX_PER_MM];
  const [width, height] = [(LABEL.width - LABEL.gap) * PX_PER_MM, (LABEL.height - LABEL.gap) * PX_PER_MM];
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect width={width} height={height} fill="none" stroke="var(--edge)" strokeDasharray="4 3" />
      <text x="10" y={height / 2 + 9} style={{ fontSize: 26, fontWeight: 700 }}>
        {input}
      </text>
      <text x={width * 0.34} y={height / 2 - 3} style={{ fontSize: 16, fontWeight: 650 }}>
        {name}
      </text>
      <text x={width * 0.34} y={height / 2 + 15} style={{ fontSize: 11.5 }}>
        {where.length > LONGEST_WHERE ? `${where.slice(0, LONGEST_WHERE - 1)}…` : where}
      </text>
      <title>{kind}</title>
    </g>
  );
}
