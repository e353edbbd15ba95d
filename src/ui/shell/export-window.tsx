'use client';
import { useRef, useState } from 'react';
import { straighten } from '@/core/track';
import { RadioList } from '@/ui/parts/one-of';
import { saveFile } from '@/ui/parts/save-file';
import { Window } from '@/ui/parts/window';
import { onPaper, PAGE_MM, PX_PER_MM } from '@/ui/sheet/on-paper';
import { GUTTER } from '@/ui/sheet/sheet-geometry';
import { SheetPicture } from '@/ui/sheet/sheet-picture';
import { standAlone } from '@/ui/sheet/stand-alone';
import { shownDocument } from '@/ui/state/design';
import { useWorkbench } from '@/ui/state/store';

/** The measured bar on each page. */
const CHECK_MM = 100;

type Choice = 'fit' | '10' | '1';
const CHOICES: { value: Choice; says: string }[] = [
  { value: 'fit', says: 'On one page' },
  { value: '10', says: '1:10' },
  { value: '1', says: '1:1, full size' },
];

/** The sheet on paper or in a file, at a true scale on request. */
export function ExportWindow({ onClose }: { onClose: () => void }) {
  const document = useWorkbench(shownDocument);
  const design = useWorkbench((s) => s.design);
  const [choice, setChoice] = useState<Choice>('fit');
  const box = useRef<HTMLDivElement>(null);
  const drawing = straighten(document);
  const { ratio, geometry, width, height, pages } = onPaper(drawing, choice === 'fit' ? 'fit' : Number(choice));
  const pageWidth = pages === 1 ? width : PAGE_MM * PX_PER_MM;
  const picture = (
    <SheetPicture document={document} design={design} geometry={geometry} width={width} height={height} />
  );
  const check = (
    <g>
      <path
        d={`M${GUTTER} ${height - 22}v8m0 -4h${CHECK_MM * PX_PER_MM}m0 -4v8`}
        stroke="var(--ink)"
        fill="none"
        strokeWidth="1"
      />
      <text x={GUTTER + 8} y={height - 26}>
        This bar measures {CHECK_MM} mm on paper
        {choice === 'fit' ? '' : `, ${CHECK_MM * ratio} mm on the layout`}. If not, print at 100 %.
      </text>
    </g>
  );
  const save = () => {
    const svg = box.current!.querySelector('svg')!;
    const name = `${document.name.replaceAll('.', ' ')}.svg`;
    saveFile(name, standAlone(svg, width / PX_PER_MM, height / PX_PER_MM), 'image/svg+xml');
  };
  return (
    <Window
      wide
      title="The sheet on paper"
      says="Distances along the line are true to the scale you choose; heights are a drawing."
      onClose={onClose}
    >
      <div className="flex flex-wrap items-center gap-4 border-b border-line px-4 py-2">
        <RadioList inline label="Scale of the drawing" value={choice} options={CHOICES} onChange={setChoice} />
        <output className="text-ink2">
          {Math.round(width / PX_PER_MM)} mm wide, {pages === 1 ? '1 page' : `${pages} pages`} lying
        </output>
        <span className="grow" />
        <button type="button" className="button" onClick={save}>
          Save as SVG
        </button>
        <button type="button" className="button button-main" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <div ref={box} tabIndex={0} className="on-paper min-h-0 flex-1 overflow-auto bg-sheet">
        <svg
          width={width}
          height={height}
          className="drawing block"
          role="img"
          aria-label="The sheet as it will be drawn"
        >
          {picture}
          {check}
        </svg>
      </div>
      <div className="paper-pages on-paper" aria-hidden="true">
        {Array.from({ length: pages }, (_, page) => (
          <svg
            key={page}
            className="drawing"
            style={{ width: `${pageWidth / PX_PER_MM}mm`, height: `${height / PX_PER_MM}mm` }}
            viewBox={`${page * pageWidth} 0 ${pageWidth} ${height}`}
          >
            <title>{`Page ${page + 1}`}</title>
            {picture}
            <g transform={`translate(${page * pageWidth} 0)`}>{check}</g>
            <text x={page * pageWidth + 8} y="12">
              {document.name}, page {page + 1} of {pages}
            </text>
          </svg>
        ))}
      </div>
    </Window>
  );
}
