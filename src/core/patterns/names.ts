import type { Partition, Section } from '../detection';

/** A person's name in the rule program. A dot would split it, so it is shown as a middle dot. */
export const safe = (text: string) => (text.includes('.') ? text.replaceAll('.', '·') : text);

export const detect = (detector: string) => `detect.${safe(detector)}`;
export const seen = (detector: string) => `seen.${safe(detector)}`;
export const occupied = (block: string) => `occupied.${safe(block)}`;
export const points = (turnout: string) => `points.${safe(turnout)}`;
export const ask = (turnout: string, position: 'straight' | 'diverging') => `ask.${safe(turnout)}.${position}`;
export const locked = (turnout: string) => `locked.${safe(turnout)}`;
export const cleared = (turnout: string) => `cleared.${safe(turnout)}`;
export const drive = (turnout: string) => `drive.${safe(turnout)}`;
export const hold = (signal: string) => `hold.${safe(signal)}`;
export const near = (signal: string) => `near.${safe(signal)}`;
export const wants = (signal: string) => `wants.${safe(signal)}`;
export const may = (signal: string, to: string) => `may.${safe(signal)}.${safe(to)}`;
export const go = (signal: string, to: string) => `go.${safe(signal)}.${safe(to)}`;
export const free = (signal: string, to: string) => `free.${safe(signal)}.${safe(to)}`;
export const proceed = (signal: string) => `proceed.${safe(signal)}`;
export const stopsIn = (signal: string, signals: number) => `stops.${safe(signal)}.${signals}`;
export const shows = (signal: string) => `signal.${safe(signal)}`;
export const held = (stretch: string, side: string) => `held.${safe(stretch)}.${safe(side)}`;
export const tell = (stretch: string, side: string) => `tell.${safe(stretch)}.${safe(side)}`;
export const quiet = (stretch: string, side: string) => `quiet.${safe(stretch)}.${safe(side)}`;
export const power = (section: string) => `power.${safe(section)}`;
export const cut = (section: string) => `cut.${safe(section)}`;
export const letOn = (section: string) => `let.${safe(section)}`;
export const dead = (section: string) => `dead.${safe(section)}`;
export const SETTLED = 'settled';

/** A section is called after its first block. */
export const sectionName = ({ blocks }: Partition, section: Section): string => blocks[section.blocks[0]!]!.name;
