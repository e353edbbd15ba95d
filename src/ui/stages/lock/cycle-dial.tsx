'use client';
import { arc } from 'd3';
import { useId } from 'react';
import type { HowManyTrains, SoManyTrains } from '@/core/design';
import { sayStanding, sayTime } from './say-cycle';

const SIZE = 300;
const OUTER = 122;
const RING = 22;
const TAU = Math.PI * 2;

/** One train through a step: in the outermost ring it runs, in another it waits in a block. */
interface Stay {
  train: number;
  ring: number;
  from: number;
  to: number;
}

/** Stays of each train, joined where one goes on in the next step. */
function staysOf(timed: NonNullable<SoManyTrains['timed']>, rings: readonly number[], trains: number): Stay[] {
  const whole = timed.reduce((sum, { ms }) => sum + ms, 0);
  const stays: Stay[] = [];
  for (let train = 0; train < trains; train++) {
    let at = 0;
    for (const { trains: places, ms } of timed) {
      const block = places[train];
      const ring = block === undefined ? 0 : rings.indexOf(block) + 1;
      const [from, to] = [at / whole, (at + ms) / whole];
      const last = stays.at(-1);
      if (last && last.train === train && last.ring === ring && Math.abs(last.to - from) < 1e-9) last.to = to;
      else stays.push({ train, ring, from, to });
      at += ms;
    }
  }
  return stays;
}

/** A round of trains as a dial: an angle is a time, a ring a place, thick runs and thin waits. */
export function CycleDial({
  row,
  found,
  step,
  onStep,
}: {
  row: SoManyTrains;
  found: HowManyTrains;
  step: number | undefined;
  onStep: (step: number | undefined) => void;
}) {
  const id = useId();
  const timed = row.timed;
  if (!timed) return null;
  const whole = timed.reduce((sum, { ms }) => sum + ms, 0);
  const rings = [...new Set(timed.flatMap(({ trains }) => trains.flatMap((block) => block ?? [])))];
  const width = Math.min(RING, 76 / (rings.length + 1));
  const radius = (ring: number) => OUTER - ring * width - width / 2;
  const stays = staysOf(timed, rings, row.count);
  const starts = timed.map((_, n) => timed.slice(0, n).reduce((sum, { ms }) => sum + ms, 0) / whole);
  const band = ({ ring, from, to, train }: Stay) => {
    /** Trains that run at once lie beside each other in their ring. */
    const lane = ring === 0 ? (train - (row.count - 1) / 2) * Math.min(6, (width * 0.7) / row.count) : 0;
    const thick = ring === 0 ? Math.min(9, (width * 0.8) / row.count) : Math.min(4, width * 0.3);
    return (
      arc()({
        innerRadius: radius(ring) + lane - thick / 2,
        outerRadius: radius(ring) + lane + thick / 2,
        startAngle: from * TAU,
        endAngle: to * TAU,
      }) ?? ''
    );
  };
  const said = timed.map((one, n) => `${n + 1}: ${sayStanding(found, row.trains, one)}`).join(' ');
  const places = ['on the line', ...rings.map((block) => found.blocks[block]!)];
  return (
    <figure className="m-0 w-[240px]">
      <svg viewBox={`${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`} role="img" aria-labelledby={id} className="w-full">
        <title id={id}>{`A round of ${sayTime(whole / 1000)} in ${timed.length} steps. ${said}`}</title>
        {[...Array(rings.length + 1).keys()].map((ring) => (
          <circle key={ring} r={radius(ring)} fill="none" stroke="var(--line)" strokeWidth={0.75} />
        ))}
        {starts.map((at, n) => {
          const to = n + 1 < starts.length ? starts[n + 1]! : 1;
          const wedge =
            arc()({ innerRadius: 0, outerRadius: OUTER + 4, startAngle: at * TAU, endAngle: to * TAU }) ?? '';
          const [x, y] = [Math.sin(at * TAU), -Math.cos(at * TAU)];
          return (
            <g key={at} onPointerEnter={() => onStep(n)} onPointerLeave={() => onStep(undefined)}>
              <path d={wedge} fill={step === n ? 'var(--accent-tint)' : 'transparent'} />
              <line
                x1={x * (OUTER - 2)}
                y1={y * (OUTER - 2)}
                x2={x * (OUTER + 5)}
                y2={y * (OUTER + 5)}
                stroke="var(--ink)"
              />
            </g>
          );
        })}
        <g pointerEvents="none">
          {stays.map((stay) => (
            <path key={`${stay.train} ${stay.from}`} d={band(stay)} fill={`var(--train-${stay.train % 4})`} />
          ))}
          {numbersOf(starts).map(({ n, at }) => (
            <text
              key={n}
              x={Math.sin(at * TAU) * (OUTER + 15)}
              y={-Math.cos(at * TAU) * (OUTER + 15)}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={11}
              fontWeight={step === n ? 700 : 400}
              fill="var(--ink)"
            >
              {n + 1}
            </text>
          ))}
          <text textAnchor="middle" dominantBaseline="central" y={-6} fontSize={18} fontWeight={600} fill="var(--ink)">
            {sayTime(whole / 1000)}
          </text>
          <text textAnchor="middle" dominantBaseline="central" y={11} fontSize={10.5} fill="var(--ink2)">
            {timed.length} steps
          </text>
        </g>
      </svg>
      <figcaption className="text-ink2">
        Rings from outside: {places.join(', ')}.{' '}
        {row.trains.map((name, t) => (
          <span key={name} className="mr-2 whitespace-nowrap">
            <span aria-hidden className="mr-1 inline-block h-2 w-3" style={{ background: `var(--train-${t % 4})` }} />
            {name}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}

/** Numbers of steps that have room around the dial: none nearer to the one before than its own width. */
function numbersOf(starts: readonly number[]): { n: number; at: number }[] {
  const shown: { n: number; at: number }[] = [];
  for (const [n, at] of starts.entries()) {
    const last = shown.at(-1);
    if (!last || (at - last.at) * TAU * OUTER > 13) shown.push({ n, at });
  }
  return shown;
}
