import { FLAGS, INPUTS, OUTPUTS } from '../kinds';
import type { System } from './system';
import type { TerminalKind } from './terminals';

/** Something that terminals belong to. */
export interface Thing {
  id: string;
  name: string;
}

const KINDS = { ...INPUTS, ...OUTPUTS, ...FLAGS } as const;
type Of = (typeof KINDS)[TerminalKind]['of'];

/** Where a System has what terminals belong to, by number. A section is called after its first block. */
const WHERE: Readonly<Record<Of, (system: System, of: number) => Thing | undefined>> = {
  sensor: ({ sensors }, of) => sensors[of],
  motor: ({ partition }, of) => partition.graph.motors[of],
  signal: ({ readings }, of) => readings[of]?.signal,
  post: ({ posts }, of) => posts[of],
  block: ({ partition }, of) => partition.blocks[of],
  section: ({ partition: { blocks, sections } }, of) => blocks[sections[of]?.blocks[0] ?? -1],
  'traffic section': ({ trafficSections }, of) => trafficSections.all[of],
  any: () => undefined,
};

export const thingOf = (system: System, kind: TerminalKind, of: number): Thing | undefined =>
  WHERE[KINDS[kind].of](system, of);
