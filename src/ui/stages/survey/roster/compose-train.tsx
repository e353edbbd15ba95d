'use client';
import {
  type CollisionDetection,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { arrayMove, rectSortingStrategy, SortableContext, sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { type ReactNode, useState } from 'react';
import { startBehind } from '@/core/design';
import { consistOf } from '@/core/detection';
import { fromMm, mmOf } from '@/core/measure';
import { LONGEST_NAME, type Train } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { TrainStrip } from '@/ui/reasoning/train-strip';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { InRoster, InTrain } from './draggable-vehicle';

const NEW = 'new train';
const BEHIND = 'behind the train';
/** The longest train fills about the width of the window. */
const MOST_PX = 1100;
const PX_A_MM = 0.8;

/** What is under the pointer, a vehicle before the train that it is in; by keys what lies nearest. */
const beneath: CollisionDetection = (args) => {
  if (!args.pointerCoordinates) return closestCenter(args);
  const hit = pointerWithin(args);
  const vehicle = hit.filter(({ id }) => id !== BEHIND);
  return vehicle.length > 0 ? vehicle : hit;
};

/** A train put together of the roster’s vehicles: dragged by pointer or by keys, turned, taken out, split and joined. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function ComposeTrain() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const { trains, vehicles } = document;
  const [chosen, setChosen] = useState(trains[0]?.id ?? NEW);
  const [place, setPlace] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const train = trains.find(({ id }) => id === chosen);
  const consist = train?.vehicles ?? [];
  const turned = train?.turned ?? [];
  const px = train ? Math.min(PX_A_MM, MOST_PX / consistOf(document, train).lengthMm) : PX_A_MM;
  const { attempt } = store.getState();

  /** The train with its vehicles in another order; each is told by where it was, or by its id if it comes from the roster. */
  const recompose = (order: readonly (number | string)[]) => {
    setPlace(undefined);
    const ids = order.map((one) => (typeof one === 'number' ? consist[one]! : one));
    if (!train) {
      const name = freeName('Train', trains);
      setProblem(attempt({ do: 'add train', vehicles: ids, train: { ...ASSUMED, name } }));
      return setChosen(store.getState().document.trains.at(-1)!.id);
    }
    const backwards = order.flatMap((one, i) => (typeof one === 'number' && turned.includes(one) ? i : []));
    const change = { vehicles: ids, turned: backwards.length > 0 ? backwards : undefined };
    setProblem(attempt({ do: 'change train', id: train.id, change }));
  };
  const places = consist.map((_, i) => i);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const to = over.id === BEHIND ? places.length : (over.data.current?.place as number | undefined);
    if (to === undefined) return;
    const { place: from, vehicle } = active.data.current as { place?: number; vehicle: string };
    if (from === undefined) recompose(places.toSpliced(to, 0, vehicle as never));
    else if (from !== to) recompose(arrayMove(places, from, Math.min(to, places.length - 1)));
  };
  const turn = (at: number) => {
    if (!train) return;
    const next = turned.includes(at) ? turned.filter((other) => other !== at) : [...turned, at].sort((a, b) => a - b);
    setProblem(attempt({ do: 'change train', id: train.id, change: { turned: next.length > 0 ? next : undefined } }));
  };
  const split = (after: number) => {
    if (!train) return;
    const front = consistOf(document, { ...train, vehicles: consist.slice(0, after), turned: undefined });
    const line = document.lines.find(({ id }) => id === train.start?.line);
    const start = line && startBehind(train, fromMm(front.lengthMm), line.length.tenthUm, document.shownUnit);
    const name = freeName(`${train.name.slice(0, LONGEST_NAME.train - 10)} rear`, trains);
    setPlace(undefined);
    setProblem(attempt({ do: 'split train', id: train.id, after, name, start }));
  };
  const act = (says: string, onClick: () => void, disabled = false) => (
    <button type="button" className="button" onClick={onClick} disabled={disabled}>
      {says}
    </button>
  );
  return (
    <DndContext sensors={sensors} collisionDetection={beneath} onDragEnd={onDragEnd}>
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          label="Train"
          className="w-56"
          value={train ? chosen : NEW}
          options={[
            ...trains.map(({ id, name }) => ({ value: id, says: name })),
            { value: NEW, says: 'a new train …' },
          ]}
          onChange={(id) => {
            setChosen(id);
            setPlace(undefined);
          }}
        />
        {train && act('Turn all of it', () => setProblem(attempt({ do: 'turn train', id: train.id })))}
        {train && trains.length > 1 && (
          <Choice
            label="Put behind it"
            className="w-48"
            value={undefined}
            placeholder="another train"
            options={trains.filter(({ id }) => id !== train.id).map(({ id, name }) => ({ value: id, says: name }))}
            onChange={(id) => setProblem(attempt({ do: 'join trains', id: train.id, with: id }))}
          />
        )}
      </div>
      {problem && (
        <p role="alert" className="mt-2 text-fail">
          {problem}
        </p>
      )}
      {train && (
        <div className="mt-3">
          <TrainStrip document={document} train={train} />
        </div>
      )}
      <Behind>
        {places.length === 0 && <p className="self-center text-ink2">Drag vehicles here, or press “Put on”.</p>}
        <SortableContext items={places.map((at) => `place ${at}`)} strategy={rectSortingStrategy}>
          {places.map((at) => {
            const vehicle = vehicles.find(({ id }) => id === consist[at])!;
            return (
              <InTrain
                key={at}
                place={at}
                vehicle={vehicle}
                scale={document.scale}
                widthPx={mmOf(vehicle.length.tenthUm) * px}
                backwards={turned.includes(at)}
                chosen={place === at}
                onChoose={() => setPlace(at)}
              />
            );
          })}
        </SortableContext>
      </Behind>
      <div className="mt-2 flex min-h-8 flex-wrap items-center gap-2">
        {place !== undefined && train ? (
          <>
            <span className="font-semibold">
              {place + 1}: {vehicles.find(({ id }) => id === consist[place])?.name}
            </span>
            {act('Turn it', () => turn(place))}
            {act('Take it out', () => recompose(places.filter((at) => at !== place)), consist.length === 1)}
            {act('Split behind it', () => split(place + 1), place === consist.length - 1)}
          </>
        ) : (
          <span className="text-ink3">
            Choose a vehicle to turn it, take it out or split the train behind it. By keys: Space lifts it, arrows move
            it, Space sets it down.
          </span>
        )}
      </div>
      <h3 className="mt-3 border-t border-line pt-3 font-semibold">In the roster</h3>
      <ul className="mt-1 flex flex-wrap gap-2">
        {vehicles.map((vehicle) => (
          <InRoster
            key={vehicle.id}
            vehicle={vehicle}
            inTrain={document.trains.find((one) => one.vehicles.includes(vehicle.id))?.name}
            scale={document.scale}
            widthPx={mmOf(vehicle.length.tenthUm) * px}
            onPut={() => recompose([...places, vehicle.id])}
          />
        ))}
        {vehicles.length === 0 && <li className="text-ink2">No vehicle yet: add them under “Vehicles”.</li>}
      </ul>
    </DndContext>
  );
}

/** Until somebody measures it; common practice, no source. */
const ASSUMED: Omit<Train, 'id' | 'vehicles' | 'name'> = {
  turned: undefined,
  topSpeedKmh: 60,
  accelerationMmPerS2: 60,
  brakingMmPerS2: 90,
  startDelayMs: 500,
  measured: [],
  start: undefined,
};

function freeName(begins: string, trains: readonly Train[]): string {
  const names = new Set(trains.map(({ name }) => name));
  for (let n = 1; ; n++) if (!names.has(`${begins} ${n}`)) return `${begins} ${n}`;
}

/** The train being put together; what is let go on its free part goes behind. */
function Behind({ children }: { children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: BEHIND });
  return (
    <ol
      ref={setNodeRef}
      aria-label="Vehicles of the train, nose first"
      className={`mt-3 flex min-h-20 flex-wrap items-end gap-y-2 rounded-md border border-dashed p-2 ${isOver ? 'border-accent bg-accent-tint' : 'border-edge'}`}
    >
      {children}
    </ol>
  );
}
