import { memo } from 'react';
import { showLength } from '@/core/measure';
import { signalsOf } from '@/core/survey';
import { textWidth } from '@/ui/sheet/label-placement';
import { BOXES, LANE_TOP, type LaneProps, LaneTitle, spanOf, withRows } from '@/ui/sheet/lanes';

/** Before each signal, the room in which a train learns of a stop there, and what of it the train that needs most needs. */
const StoppingLane = memo(function StoppingLane({ document, design, geometry, y, width }: LaneProps) {
  const says = (length: number) => showLength(length, document.shownUnit);
  const signals = new Map(signalsOf(document).map((signal) => [signal.id, signal]));
  const lengthOf = new Map(document.lines.map(({ id, length }) => [id, length.tenthUm]));
  const [first] = design.stopping;
  const short = design.stopping.filter(({ room, needs }) => room < needs).length;
  const note = first
    ? `bar: what ${first.train} needs to stop, ${says(first.needs)}; line: the room it has${short > 0 ? `; too little before ${short} ${short === 1 ? 'signal' : 'signals'}` : ''}`
    : 'shows whether every train learns of a stop in time, once there are trains and signals that follow each other';
  return (
    <g>
      <LaneTitle y={y} width={width} title="Stopping room" note={note} />
      {design.stopping.map(({ signal: id, by, room, needs, train }) => {
        const signal = signals.get(id);
        const whole = signal && lengthOf.get(signal.line);
        if (!signal || whole === undefined || signal.at.tenthUm > whole) return null;
        const sign = signal.governs === 'up' ? -1 : 1;
        const back = (by: number) => Math.max(0, Math.min(whole, signal.at.tenthUm + sign * by));
        const stretch = (by: number) => {
          const [a, b] = [signal.at.tenthUm, back(by)];
          return spanOf(geometry, { line: signal.line, from: Math.min(a, b), to: Math.max(a, b) });
        };
        const [has, wants] = [stretch(room), stretch(needs)];
        const top = y + LANE_TOP - 6 + (has.row - geometry.drawing.firstRow) * BOXES + (sign < 0 ? 1 : 9);
        const spare = room - needs;
        const figure = `${spare >= 0 ? '+' : '−'}${says(Math.abs(spare))}`;
        const paint = spare < 0 ? 'var(--warn)' : 'var(--accent)';
        const isLeft = has.x < geometry.at(signal.line, signal.at.tenthUm).x - 1;
        return (
          <g key={id}>
            <path
              d={`M${has.x} ${top + 3}H${has.x + has.width}M${isLeft ? has.x : has.x + has.width} ${top}v6`}
              stroke={paint}
            />
            <rect x={wants.x} y={top + 1} width={wants.width} height="4" fill={paint} opacity={spare < 0 ? 1 : 0.55} />
            {spare < 0 && has.width > textWidth(figure, 6) + 6 && (
              <text x={has.x + has.width / 2} y={top + 7} textAnchor="middle" fontSize="11" fontWeight="650">
                {figure}
              </text>
            )}
            <title>{`${signal.name}: ${by} announces a stop there ${says(room)} before; ${train} needs ${says(needs)}: ${figure}`}</title>
          </g>
        );
      })}
    </g>
  );
});

export const STOPPING = withRows(StoppingLane, BOXES);
