import type { DesignView } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';
import { BlockPlates } from './block-plates';
import { CutsLayer } from './cuts-layer';
import { planLabels } from './plan-labels';
import { Rulers } from './rulers';
import type { SheetGeometry } from './sheet-geometry';
import { SignalsLayer } from './signals-layer';
import { TrackLayer } from './track-layer';

const NONE: ReadonlySet<string> = new Set();

/** The sheet as a still picture: for comparing two versions, for a file and for paper. It cannot be worked on. */
export function SheetPicture({
  document,
  design,
  geometry,
  width,
  height,
}: {
  document: LayoutDocument;
  design?: DesignView;
  geometry: SheetGeometry;
  width: number;
  height: number;
}) {
  const placed = planLabels(document, design, geometry, design !== undefined, true);
  const points = Object.fromEntries(document.turnouts.map((turnout) => [turnout.id, turnout.lies[0]!]));
  return (
    <g pointerEvents="none">
      <Rulers document={document} geometry={geometry} width={width} height={height} />
      <TrackLayer
        document={document}
        design={design}
        geometry={geometry}
        placed={placed}
        points={points}
        locked={NONE}
        detectors
        occupied={NONE}
        chosen={NONE}
      />
      <CutsLayer document={document} geometry={geometry} chosen={NONE} canMove={false} />
      {design && <BlockPlates blocks={design.blocks} placed={placed} occupied={NONE} chosen={NONE} />}
      <SignalsLayer document={document} geometry={geometry} placed={placed} chosen={NONE} aspects={[]} />
    </g>
  );
}
