import { memo } from 'react';
import type { DesignView } from '@/core/design';
import { showLength } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import type { GoesOn } from '@/core/track';
import { useWorkbench } from '@/ui/state/store';
import { BlockPlates } from './block-plates';
import { CutsLayer } from './cuts-layer';
import { heightOf, type LaneKind } from './lanes';
import { LengthMarks } from './length-marks';
import type { Placed } from './plan-labels';
import { PointedPlace } from './pointed-place';
import { PointedRoutes } from './pointed-routes';
import { ProposedCuts } from './proposed-cuts';
import { Rulers } from './rulers';
import type { SheetGeometry } from './sheet-geometry';
import { SignalsLayer } from './signals-layer';
import { TrackLayer } from './track-layer';
import type { useShownState } from './use-shown-state';

interface Props {
  document: LayoutDocument;
  /** The same with what was cut a moment ago. */
  withCuts: LayoutDocument;
  design: DesignView | undefined;
  geometry: SheetGeometry;
  placed: Placed;
  state: ReturnType<typeof useShownState>;
  chosen: ReadonlySet<string>;
  lanes: readonly LaneKind[];
  height: number;
  trackBottom: number;
  select: (id: string) => void;
  pickTurnout: (id: string) => void;
  goOn: (place: GoesOn) => void;
  onMove: (id: string, at: number) => boolean;
  onNudge: (id: string, by: number) => void;
}

/** All that is drawn of the layout itself, from the rulers to the lanes beneath it. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: the layers of the sheet from back to front.
export const SheetLayers = memo(function SheetLayers(props: Props) {
  const { document, design, geometry, placed, state, chosen, lanes, height, trackBottom, select } = props;
  const { width } = geometry;
  const layers = useWorkbench((s) => s.layers);
  const edits = useWorkbench((s) => s.stage.edits ?? false);
  const { board, tried, points, locked, occupied, aspects } = state;
  const rows = geometry.drawing.lastRow - geometry.drawing.firstRow + 1;
  return (
    <>
      <Rulers document={document} geometry={geometry} width={width} height={height} />
      <TrackLayer
        document={document}
        design={design}
        geometry={geometry}
        placed={placed}
        points={points}
        locked={locked}
        detectors={layers.detectors}
        occupied={occupied}
        dead={board?.dead}
        shows={board?.shows}
        chosen={chosen}
        onSelect={props.pickTurnout}
        onGoOn={props.goOn}
      />
      <PointedRoutes geometry={geometry} />
      <CutsLayer
        document={props.withCuts}
        geometry={geometry}
        chosen={chosen}
        canMove={edits}
        onSelect={select}
        onMove={props.onMove}
        onNudge={props.onNudge}
      />
      <LengthMarks lengths={placed.lengths} />
      {design && (
        <BlockPlates
          blocks={design.blocks}
          placed={placed}
          occupied={occupied}
          chosen={chosen}
          onSelect={select}
          except={board && occupied}
        />
      )}
      {layers.signals && (
        <SignalsLayer
          document={document}
          geometry={geometry}
          placed={placed}
          chosen={chosen}
          aspects={aspects}
          held={board?.held}
          dark={(board ?? tried)?.shows}
          onSelect={select}
        />
      )}
      <Pencilled document={document} geometry={geometry} />
      {design &&
        lanes.map(({ Lane }, i) => (
          <Lane
            key={i}
            document={document}
            design={design}
            geometry={geometry}
            y={trackBottom + heightOf(lanes.slice(0, i), rows)}
            width={width}
          />
        ))}
    </>
  );
});

/** What is not there yet, or only pointed at: cuts that are proposed, and a place. */
function Pencilled({ document, geometry }: { document: LayoutDocument; geometry: SheetGeometry }) {
  const proposed = useWorkbench((s) => s.proposed);
  const pointed = useWorkbench((s) => s.pointed);
  /** A line that was begun a moment ago, or a place beyond an end, is not drawn. */
  const line = pointed && document.lines.find(({ id }) => id === pointed.line);
  const isThere = line && Math.max(pointed.at, pointed.to ?? 0) <= line.length.tenthUm;
  return (
    <>
      {proposed && <ProposedCuts document={document} geometry={geometry} cuts={proposed} />}
      {isThere && (
        <PointedPlace
          geometry={geometry}
          place={pointed}
          text={pointed.says ?? showLength(pointed.at, document.shownUnit)}
        />
      )}
    </>
  );
}
