import { type Aspect, type AspectSystem, greyOf } from './kind';

/** One lamp of an aspect is out, and what is left is another aspect, or part of none. */
export interface LampOut {
  aspect: Aspect;
  lamp: number;
  /** What it is taken for; undefined where it is no aspect, which is read as stop. */
  read: Aspect | undefined;
  /** That is less restrictive than what was meant. */
  worse: boolean;
}

/** What each lamp that goes out makes of each aspect. A head that is dark, or shows what is no aspect, is read as stop. */
export const lampsOut = (system: AspectSystem): LampOut[] =>
  system.aspects.flatMap((aspect, rank) =>
    aspect.lit.map((lamp) => {
      const left = { ...aspect, lit: aspect.lit.filter((other) => other !== lamp) };
      const read = system.aspects.find((other) => other !== aspect && greyOf(system, other) === greyOf(system, left));
      return { aspect, lamp, read, worse: read !== undefined && system.aspects.indexOf(read) > rank };
    }),
  );
