'use client';
import { line as d3line, scaleLinear, scaleLog } from 'd3';
import { chanceShown, shortestHoldMs } from '@/core/detection';
import { sensorKind } from '@/core/kinds';
import { fromMm, layoutSpeedMmPerS, showLength, showNumber, showSpeed } from '@/core/measure';
import { type Dropouts, type LayoutDocument, USUAL_DROPOUTS } from '@/core/survey';
import { Term } from '@/ui/parts/term';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbenchStore } from '@/ui/state/store';

const seconds = (ms: number) => `${showNumber(ms / 1000, 2)} s`;

/** How long sensors have to keep “occupied” so that drop-outs do not show, and what that costs. */
export function HoldTimes({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const { edit } = store.getState();
  const held = document.sensors.filter(({ kind }) => sensorKind(kind).reachMm === 'section');
  if (held.length === 0) return null;
  const dropouts = document.dropouts ?? USUAL_DROPOUTS;
  const shortest = shortestHoldMs(dropouts);
  const short = held.filter(({ holdMs }) => holdMs < shortest);
  const expect = (change: Partial<Dropouts>) => edit({ do: 'expect dropouts', dropouts: { ...dropouts, ...change } });
  const [fastest] = [...document.trains].sort((a, b) => b.topSpeedKmh - a.topSpeedKmh);
  return (
    <PanelSection title="Hold times">
      <p>
        <strong>
          Hold for {seconds(shortest)}
          {short.length === 0
            ? ', as all do or longer.'
            : `: ${short.length} of ${held.length} detectors hold shorter.`}
        </strong>{' '}
        A <Term word="hold">hold</Term> so long lets a drop-out show at most once in {dropouts.inPassings} passings of a
        train.
      </p>
      {fastest && (
        <p className="mt-1 text-ink2">
          It costs as much time at every release: {fastest.name} runs{' '}
          {showLength(
            fromMm(Math.round((layoutSpeedMmPerS(fastest.topSpeedKmh, document.scale) * shortest) / 10_000) * 10),
            document.shownUnit,
          )}{' '}
          meanwhile, at {showSpeed(fastest.topSpeedKmh, document.shownUnit)}.
        </p>
      )}
      {short.length > 0 && (
        <button
          type="button"
          className="button button-main mt-2"
          onClick={() => edit({ do: 'hold sensors', ids: short.map(({ id }) => id), holdMs: shortest })}
        >
          {short.length === 1 ? 'Let it hold so long' : `Let these ${short.length} hold so long`}
        </button>
      )}
      <Curve dropouts={dropouts} shortest={shortest} holds={held.map(({ holdMs }) => holdMs)} />
      <div className="mt-2 grid grid-cols-2 gap-2">
        <NumberField
          key={`mean ${dropouts.meanMs}`}
          label="A drop-out lasts, seconds"
          value={dropouts.meanMs / 1000}
          least={0.001}
          most={10}
          digits={3}
          onCommit={(s) => expect({ meanMs: Math.round(s * 1000) })}
        />
        <NumberField
          key={`per ${dropouts.perPassing}`}
          label="In one passing"
          value={dropouts.perPassing}
          least={1}
          most={1000}
          unit="drop-outs"
          digits={0}
          onCommit={(perPassing) => expect({ perPassing: Math.round(perPassing) })}
        />
        <NumberField
          key={`in ${dropouts.inPassings}`}
          label="One may show in passings"
          value={dropouts.inPassings}
          least={2}
          most={1_000_000}
          unit="passings"
          digits={0}
          onCommit={(inPassings) => expect({ inPassings: Math.round(inPassings) })}
        />
      </div>
      <p className="mt-1 text-ink3">
        {document.dropouts ? 'As you have said.' : 'Assumed until you have watched the lamps of your detectors.'} The
        length is an average: short ones come often, long ones seldom.
      </p>
    </PanelSection>
  );
}

const WIDTH = 268;
const HEIGHT = 132;
const PAD = { left: 56, right: 8, top: 8, bottom: 30 };
const LEAST_CHANCE = 1e-6;

/** The chance that a drop-out shows in one passing, over the hold; marked are what is asked for and the holds that there are. */
function Curve({ dropouts, shortest, holds }: { dropouts: Dropouts; shortest: number; holds: readonly number[] }) {
  const most = Math.max(shortest * 1.6, ...holds, 500);
  const x = scaleLinear([0, most], [PAD.left, WIDTH - PAD.right]).nice();
  const y = scaleLog([LEAST_CHANCE, 1], [HEIGHT - PAD.bottom, PAD.top]).clamp(true);
  const at = (hold: number) => y(Math.max(LEAST_CHANCE, chanceShown(hold, dropouts)));
  const points = Array.from({ length: 81 }, (_, i) => (x.domain()[1]! * i) / 80);
  const path = d3line<number>(
    (hold) => x(hold),
    (hold) => at(hold),
  )(points);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mt-2 block w-full"
      role="img"
      aria-label={`The chance that a drop-out shows falls with the hold; at ${seconds(shortest)} it is one in ${dropouts.inPassings}.`}
    >
      {[1, 1e-2, 1e-4, 1e-6].map((chance) => (
        <g key={chance}>
          <path d={`M${PAD.left} ${y(chance)}H${WIDTH - PAD.right}`} stroke="var(--line)" />
          <text x={PAD.left - 5} y={y(chance) + 4} textAnchor="end" fontSize="10.5" fill="var(--ink2)">
            {chance === 1
              ? 'always'
              : `1 : ${showNumber(1 / chance / (chance < 1e-5 ? 1e6 : 1), 0)}${chance < 1e-5 ? ' M' : ''}`}
          </text>
        </g>
      ))}
      {x.ticks(4).map((hold) => (
        <text
          key={hold}
          x={x(hold)}
          y={HEIGHT - PAD.bottom + 13}
          textAnchor="middle"
          fontSize="10.5"
          fill="var(--ink2)"
        >
          {showNumber(hold / 1000, 2)}
        </text>
      ))}
      <text x={(PAD.left + WIDTH) / 2} y={HEIGHT - 4} textAnchor="middle" fontSize="10.5" fill="var(--ink2)">
        hold, seconds
      </text>
      <path d={path ?? ''} fill="none" stroke="var(--accent)" strokeWidth="1.8" />
      <path
        d={`M${PAD.left} ${at(shortest)}H${x(shortest)}V${HEIGHT - PAD.bottom}`}
        fill="none"
        stroke="var(--accent)"
        strokeDasharray="3 3"
      />
      {[...new Set(holds)].map((hold) => (
        <circle
          key={hold}
          cx={x(hold)}
          cy={at(hold)}
          r="4"
          fill={hold < shortest ? 'var(--warn)' : 'var(--accent)'}
          stroke="var(--paper)"
        >
          <title>{`Detectors that hold ${seconds(hold)}`}</title>
        </circle>
      ))}
    </svg>
  );
}
