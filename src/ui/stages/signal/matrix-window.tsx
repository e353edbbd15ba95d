'use client';
import { useEffect, useRef, useState } from 'react';
import type { AspectMatrix } from '@/core/design';
import { signalsOf, systemOf } from '@/core/survey';
import { PAGE, PageBar } from '@/ui/parts/page-bar';
import { saveFile } from '@/ui/parts/save-file';
import { Window } from '@/ui/parts/window';
import { PX_PER_MM } from '@/ui/sheet/on-paper';
import { AspectLamps, aspectOf } from '@/ui/sheet/signal-head';
import { standAlone } from '@/ui/sheet/stand-alone';
import { useWorkbench } from '@/ui/state/store';

const [CELL, ROW, LEFT, TOP] = [34, 24, 150, 64];

/** Places of a train down, signals across; each cell is what the signal shows. */
export function MatrixWindow({ onClose }: { onClose: () => void }) {
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const matrixOf = useWorkbench((s) => s.matrixOf);
  const points = useWorkbench((s) => s.trial.points);
  const [matrix, setMatrix] = useState<AspectMatrix>();
  const [from, setFrom] = useState(0);
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => {
    let wanted = design !== undefined;
    void matrixOf?.(points, { from, to: from + PAGE }).then((found) => wanted && setMatrix(found));
    return () => {
      wanted = false;
    };
  }, [matrixOf, points, design, from]);
  const file = (ending: string) => `${document.name} aspects.${ending}`;
  const saveCsv = async ({ signals, alone, rows }: AspectMatrix) => {
    const { default: Papa } = await import('papaparse');
    const text = Papa.unparse([
      ['a train stands in', ...signals.map(({ name }) => name)],
      ['nothing', ...alone],
      ...rows.map(({ name, aspects }) => [name, ...aspects.map((aspect) => aspect ?? '')]),
    ]);
    saveFile(file('csv'), text, 'text/csv');
  };
  const saveSvg = (drawing: SVGSVGElement) => {
    const { width, height } = drawing.viewBox.baseVal;
    saveFile(file('svg'), standAlone(drawing, width / PX_PER_MM, height / PX_PER_MM), 'image/svg+xml');
  };
  return (
    <Window
      wide
      title="Every place against every signal"
      says="Down: where another train stands. Across: each signal, and what it shows to a train that comes to it, with the points as they lie now. Empty where the train itself stands."
      onClose={onClose}
    >
      <div className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2">
        <output className="grow text-ink2">
          {matrix ? `${matrix.rows.length} blocks, ${matrix.signals.length} signals` : 'Working it out …'}
        </output>
        <PageBar what="Signals" of={signalsOf(document).length} from={from} onFrom={setFrom} />
        <button type="button" className="button" disabled={!matrix} onClick={() => matrix && void saveCsv(matrix)}>
          Save as CSV
        </button>
        <button type="button" className="button" disabled={!matrix} onClick={() => svg.current && saveSvg(svg.current)}>
          Save as SVG
        </button>
      </div>
      <div tabIndex={0} className="min-h-[320px] flex-1 overflow-auto px-4 py-3">
        {matrix && matrix.signals.length === 0 && <p className="text-ink2">There is no signal yet.</p>}
        {matrix && matrix.signals.length > 0 && <Picture matrix={matrix} into={svg} />}
      </div>
    </Window>
  );
}

function Picture({ matrix, into }: { matrix: AspectMatrix; into: React.Ref<SVGSVGElement> }) {
  const document = useWorkbench((s) => s.document);
  const systems = new Map(signalsOf(document).map(({ id, system }) => [id, systemOf(document, system)]));
  const { signals, alone, rows } = matrix;
  /** Of a long line, only blocks that matter to these signals. */
  const told = rows.length > PAGE ? rows.filter(({ aspects }) => aspects.some((shows, s) => shows !== alone[s])) : rows;
  const all = [{ block: '', name: 'nothing', aspects: alone as (string | undefined)[] }, ...told];
  const [width, height] = [LEFT + signals.length * CELL + 60, TOP + all.length * ROW + 8];
  return (
    <svg
      ref={into}
      className="drawing block"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label="Places against signals"
    >
      {signals.map(({ id, name }, s) => (
        <text
          key={id}
          transform={`translate(${LEFT + s * CELL + CELL / 2 + 4} ${TOP - 8}) rotate(-50)`}
          fontWeight="600"
        >
          {name}
        </text>
      ))}
      {all.map(({ block, name, aspects }, row) => {
        const y = TOP + row * ROW;
        return (
          <g key={block}>
            <path d={`M0 ${y}H${width - 56}`} stroke="var(--hair)" />
            <text x="4" y={y + 16} fontWeight={row === 0 ? 400 : 600}>
              {name}
            </text>
            {aspects.map((shows, s) => {
              const { id, name: signal } = signals[s]!;
              const system = systems.get(id);
              const changes = row > 0 && shows !== undefined && shows !== alone[s];
              return (
                <g key={id} transform={`translate(${LEFT + s * CELL} ${y})`}>
                  <title>{shows ? `${signal} shows ${shows}` : `the train stands before ${signal}`}</title>
                  {changes && <rect x="1" y="1" width={CELL - 2} height={ROW - 2} fill="var(--accent-tint)" />}
                  {system && shows !== undefined && (
                    <g transform="translate(0 4)">
                      <AspectLamps system={system} aspect={aspectOf(system, shows)} width={CELL} />
                    </g>
                  )}
                </g>
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}
