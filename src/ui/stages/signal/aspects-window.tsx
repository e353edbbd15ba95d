'use client';
import { useState } from 'react';
import { type AspectSystem, greyOf, NOWHERE } from '@/core/kinds';
import { type OwnAspectSystem, saySpeedLimit, signalsOf, systemsFor } from '@/core/survey';
import { Window } from '@/ui/parts/window';
import { HeadPicture } from '@/ui/sheet/head-picture';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { AspectCard } from './aspect-card';
import { OwnSystem } from './own-system';

/** Which signal an aspect has a driver stop at, in words. */
export const saysStop = (stopsIn: number): string =>
  ['stop here', 'ready to stop at the next', 'ready to stop at the second from here'][stopsIn] ??
  (stopsIn === NOWHERE ? 'no stop ahead' : `ready to stop at signal ${stopsIn} from here`);

/** A system as the layout keeps its own. */
export const asOwn = ({ lamps, aspects }: AspectSystem, name: string): Omit<OwnAspectSystem, 'id'> => ({
  name,
  lamps: lamps.map(({ shape, colour, head }) => ({ shape, colour, head })),
  aspects: aspects.map((aspect) => ({
    calls: undefined,
    leads: undefined,
    ...aspect,
    stopsIn: aspect.stopsIn === NOWHERE ? undefined : aspect.stopsIn,
    speed: aspect.speed && { share: aspect.speed.share, kmh: aspect.speed.kmh },
    speedAtNext: aspect.speedAtNext && { share: aspect.speedAtNext.share, kmh: aspect.speedAtNext.kmh },
    lit: [...aspect.lit],
    flashing: aspect.flashing && [...aspect.flashing],
  })),
});

/** Every system that signals can show, looked at, copied, changed, and printed as a card. */
export function AspectsWindow({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const systems = systemsFor(document);
  const signals = signalsOf(document);
  const [chosen, setChosen] = useState<string>();
  const [card, setCard] = useState(false);
  const one = systems.find(({ id }) => id === chosen) ?? systems[0]!;
  const count = (id: string) => signals.filter(({ system }) => system === id).length;
  const copy = () => {
    const taken = new Set(document.aspectSystems.map(({ name }) => name));
    const names = Array.from(
      { length: taken.size + 1 },
      (_, n) => `Our ${one.system.name.toLowerCase()}${n ? ` ${n + 1}` : ''}`,
    );
    const name = names.find((free) => !taken.has(free))!.slice(0, 30);
    const before = new Set(document.aspectSystems.map(({ id }) => id));
    if (!store.getState().edit({ do: 'put aspect system', system: asOwn(one.system, name) })) return;
    setChosen(store.getState().document.aspectSystems.find(({ id }) => !before.has(id))?.id);
  };
  const others = signals.filter(({ system }) => system !== one.id).map(({ id }) => id);
  if (card) return <AspectCard system={one.system} onClose={() => setCard(false)} />;
  return (
    <Window
      wide
      title="Aspect systems"
      says="What signals can show, and what each aspect asks of a crew. Copy one to change it; its aspects mean the same wherever they are used."
      onClose={onClose}
    >
      <div className="flex min-h-[440px] flex-1 overflow-hidden">
        <ul className="w-56 shrink-0 overflow-y-auto border-r border-line px-2 py-2" aria-label="Aspect systems">
          {systems.map(({ id, system, own }) => (
            <li key={id}>
              <button
                type="button"
                aria-pressed={id === one.id}
                className="w-full cursor-pointer rounded-sm px-2 py-1 text-left hover:bg-accent-tint aria-pressed:bg-accent-tint aria-pressed:font-semibold"
                onClick={() => setChosen(id)}
              >
                {system.name}
                <span className="block text-ink2">
                  {own ? 'your own, ' : ''}
                  {system.aspects.length} aspects{count(id) > 0 ? `, ${count(id)} signals` : ''}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <div tabIndex={0} className="min-h-0 min-w-0 flex-1 overflow-auto px-4 py-3">
          <div className="mb-2 flex flex-wrap items-center gap-2">
            <h3 className="grow font-bold">{one.system.name}</h3>
            <button type="button" className="button" onClick={copy}>
              Copy to change it
            </button>
            {others.length > 0 && (
              <button
                type="button"
                className="button"
                onClick={() => store.getState().edit({ do: 'signal by', ids: others, system: one.id })}
              >
                Use it for every signal
              </button>
            )}
            <button type="button" className="button" onClick={() => setCard(true)}>
              Card for crews
            </button>
          </div>
          <Alike system={one.system} />
          {one.own ? (
            <OwnSystem key={one.id} own={document.aspectSystems.find(({ id }) => id === one.id)!} system={one.system} />
          ) : (
            <AspectTable system={one.system} />
          )}
        </div>
      </div>
    </Window>
  );
}

/** Aspects that nobody can tell apart who sees no colours, or on a grey print. */
function Alike({ system }: { system: AspectSystem }) {
  const alike = system.aspects.flatMap((one, i) =>
    system.aspects
      .slice(i + 1)
      .filter((two) => greyOf(system, one) === greyOf(system, two))
      .map((two) => `${one.id} and ${two.id}`),
  );
  return alike.length === 0 ? (
    <p className="mb-2 text-ink2">
      Every aspect can be told from every other without colours, by place, shape or flashing.
    </p>
  ) : (
    <p className="mb-2 font-semibold text-[var(--danger)]">
      Without colours nobody can tell apart {alike.join('; ')}. Give them other shapes, places or let one flash.
    </p>
  );
}

function AspectTable({ system }: { system: AspectSystem }) {
  const unit = useWorkbench((s) => s.document.shownUnit);
  return (
    <table className="w-full text-left" aria-label={`Aspects of ${system.name}`}>
      <thead>
        <tr className="border-b border-line text-ink2">
          <th className="py-1 pr-3 font-medium">Picture</th>
          <th className="py-1 pr-3 font-medium">Aspect</th>
          <th className="py-1 pr-3 font-medium">Stops</th>
          <th className="py-1 pr-3 font-medium">Speed</th>
          <th className="py-1 pr-3 font-medium">For routes</th>
          <th className="py-1 font-medium">The crew calls</th>
        </tr>
      </thead>
      <tbody>
        {system.aspects.map((aspect) => (
          <tr key={aspect.id} className="border-b border-hair align-top">
            <td className="py-2 pr-3">
              <HeadPicture system={system} aspect={aspect} scale={1.3} />
            </td>
            <td className="max-w-72 py-2 pr-3">
              <strong>{aspect.id}</strong>
              <span className="block text-ink2">{aspect.means}</span>
            </td>
            <td className="py-2 pr-3">{saysStop(aspect.stopsIn)}</td>
            <td className="py-2 pr-3">
              {saySpeedLimit(aspect.speed, unit)}
              {aspect.speedAtNext && (
                <span className="block">{saySpeedLimit(aspect.speedAtNext, unit)} at the next</span>
              )}
            </td>
            <td className="py-2 pr-3">
              {aspect.leads === 'aside' ? 'leading aside' : aspect.leads === 'straight' ? 'straight on' : 'all'}
            </td>
            <td className="py-2">{aspect.calls ?? 'nobody'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
