/** A block with its detector, at a place; short for what is said of nearly every block. */
export const block = (at: number, name: string) => `block ${at} ${name}\ndetector ${at} ${name}`;
export const blocks = (...all: [at: number, name: string][]) => all.map(([at, name]) => block(at, name)).join('\n');
