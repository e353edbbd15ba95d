/** One thing that is measured, and what it must keep. */
export interface Figure {
  name: string;
  unit: string;
  /** At most so much, or at least; nothing where it is only told. */
  most?: number;
  least?: number;
}
/** A figure of the core: how it is made ready, and what is then timed or asked for its value, so many times. */
export interface CoreFigure extends Figure {
  times: number;
  /** How often it is done before that counts; three times where nothing is said. */
  warming?: number;
  /** What is timed, in ms; or, where it returns a number, that is the value. */
  ready(): () => number | undefined;
}
/** What came of it: the best of all times that it was done, and how long the calibration loop took just before, in ms. */
export interface Measured {
  name: string;
  value: number;
  calibration?: number;
}

export const keeps = ({ most = Number.POSITIVE_INFINITY, least = Number.NEGATIVE_INFINITY }: Figure, value: number) =>
  value <= most && value >= least;

const boundOf = ({ most, least }: Figure): string =>
  most !== undefined ? `  (at most ${most})` : least !== undefined ? `  (at least ${least})` : '';

/** A line of the bench: whether it is kept, the value, the bound, and how fast the machine was. */
export function tell(figure: Figure, { value, calibration }: Measured): string {
  const shown = String(Number(value.toPrecision(4))).padStart(9);
  const speed = calibration === undefined ? '' : `  [${calibration.toFixed(1)}]`;
  return `${keeps(figure, value) ? 'ok  ' : 'OVER'}  ${figure.name.padEnd(56)} ${shown} ${figure.unit}${boundOf(figure)}${speed}`;
}
