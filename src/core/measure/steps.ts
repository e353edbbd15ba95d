import { type ShownUnit, TENTH_UM_PER_CM, TENTH_UM_PER_INCH, TENTH_UM_PER_MM, type TenthUm } from './length';

interface Steps {
  /** To what a place that is pointed at is rounded. */
  point: TenthUm;
  /** What an arrow moves a thing by, and with Alt and with Shift. */
  arrow: TenthUm;
  fine: TenthUm;
  coarse: TenthUm;
  /** What a clearance is taken for until it is measured; common practice, no source. */
  clearance: TenthUm;
}

/** Round steps of each unit. */
export const STEPS: Record<ShownUnit, Steps> = {
  cm: {
    point: 5 * TENTH_UM_PER_MM,
    arrow: TENTH_UM_PER_CM,
    fine: TENTH_UM_PER_MM,
    coarse: 10 * TENTH_UM_PER_CM,
    clearance: 20 * TENTH_UM_PER_CM,
  },
  inch: {
    point: TENTH_UM_PER_INCH / 4,
    arrow: TENTH_UM_PER_INCH / 2,
    fine: TENTH_UM_PER_INCH / 16,
    coarse: 4 * TENTH_UM_PER_INCH,
    clearance: 8 * TENTH_UM_PER_INCH,
  },
};
