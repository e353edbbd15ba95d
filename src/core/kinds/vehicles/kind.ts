/** One kind of vehicle: everything that the house asks about it. Lengths are in life; a new vehicle gets them to scale, until it is measured. */
export interface VehicleKind {
  /** What it is called, beginning a sentence: “Coach”. */
  title: string;
  /** Over couplers, in mm; common practice, no source. */
  lifeMm: number;
  /** Where its axles lie, as shares of its length; common practice, no source. */
  axles: readonly number[];
  /** It is driven: a new one draws current by every axle. */
  driven: boolean;
  /** Its outline above the frame, from the front: share of the length, share of the height. */
  outline: readonly (readonly [number, number])[];
}
