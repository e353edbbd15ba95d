import type { DesignView } from '@/core/design';
import type { SensorKindId } from '@/core/kinds';
import { type ShownUnit, TENTH_UM_PER_CM, type TypedLength } from '@/core/measure';
import { asTyped, type Edit, type Facing } from '@/core/survey';
import type { Option } from '@/ui/parts/choice';

/** Where something shall stand, and which way it faces. */
export interface Adding {
  line: string;
  at: TypedLength;
  facing: Facing;
  sensor: SensorKindId;
}

/** Something that one click or one Enter adds. */
interface Tool {
  says: string;
  /** What its direction is called, where it has one. */
  faces?: string;
  /** It asks which kind of sensor it shall be. */
  kinds?: boolean;
  /** How the work can hurt. */
  caution?: 'cutting' | 'wiring';
  edit(adding: Adding, design: DesignView | undefined, unit: ShownUnit): Edit;
}

/** So near to the end of a block a signal is meant to stand at it: 15 cm. */
const TO_THE_END = 15 * TENTH_UM_PER_CM;

function atEndOfBlock({ line, at }: Adding, design: DesignView | undefined, unit: ShownUnit): TypedLength {
  const ends = design?.blocks.flatMap((b) => b.pieces.filter((p) => p.line === line).flatMap((p) => [p.from, p.to]));
  const off = (end: number) => Math.abs(end - at.tenthUm);
  const near = (ends ?? []).filter((end) => off(end) <= TO_THE_END).sort((a, b) => off(a) - off(b))[0];
  return near === undefined || near === at.tenthUm ? at : asTyped(near, unit);
}

type Placing = 'gap' | 'mark' | 'signal' | 'detector';
export const TOOLS: Record<Placing, Tool> = {
  gap: {
    says: 'Gap',
    caution: 'cutting',
    edit: ({ line, at }) => ({ do: 'add cut', kind: 'gap', line, at }),
  },
  mark: { says: 'Block mark', edit: ({ line, at }) => ({ do: 'add cut', kind: 'mark', line, at }) },
  signal: {
    says: 'Signal',
    faces: 'Read by trains towards',
    edit: (adding, design, unit) => ({
      do: 'add signal',
      line: adding.line,
      at: atEndOfBlock(adding, design, unit),
      governs: adding.facing,
    }),
  },
  detector: {
    says: 'Detector',
    kinds: true,
    caution: 'wiring',
    edit: ({ line, at, sensor }) => ({ do: 'add sensor', line, at, kind: sensor }),
  },
};

/** Looking at things, a tool, or a turnout, which asks for more than a place. */
export type ToolId = Placing | 'look' | 'turnout';
export const TOOL_OPTIONS: Option<ToolId>[] = [
  { value: 'look', says: 'Look' },
  ...(Object.keys(TOOLS) as Placing[]).map((id) => ({ value: id, says: TOOLS[id].says })),
  { value: 'turnout', says: 'Turnout' },
];
