import { calibrate } from './calibrate';
import { CORE_FIGURES } from './core-figures';
import type { CoreFigure, Measured } from './figure';

/** The best of all times that a figure is measured. */
function measure({ name, times, warming = 3, ready, least }: CoreFigure): Measured {
  const work = ready();
  for (let i = 0; i < warming; i++) work();
  const calibration = Math.min(calibrate(), calibrate());
  const values: number[] = [];
  for (let i = 0; i < times; i++) {
    const from = performance.now();
    const value = work();
    values.push(value ?? performance.now() - from);
  }
  return { name, value: least === undefined ? Math.min(...values) : Math.max(...values), calibration };
}

/** Names to measure, or none for all; each is told as a line of JSON once it is known. */
const asked = process.argv.slice(2);
for (const figure of CORE_FIGURES)
  if (asked.length === 0 || asked.includes(figure.name)) console.log(JSON.stringify(measure(figure)));
