/** Where something is on a vehicle, from its leading end, in tenths of a micrometre. */
interface Stretch {
  from: number;
  to: number;
}
interface Length {
  tenthUm: number;
}
/** What of a vehicle matters to those that notice it. */
export interface NoticedVehicle {
  length: Length;
  axles: readonly { at: Length; feeds: string; plastic?: boolean }[];
  magnetAt?: Length;
}

/** Something of a train that sensors notice: what it is called, and where a vehicle has it. */
export interface Notice {
  id: string;
  of(vehicle: NoticedVehicle): Stretch[];
}
const at = ({ tenthUm }: Length): Stretch => ({ from: tenthUm, to: tenthUm });

/** An axle that draws current. */
export const CURRENT: Notice = {
  id: 'current',
  of: ({ axles }) => axles.filter(({ feeds }) => feeds !== 'nothing').map((axle) => at(axle.at)),
};
/** An axle of metal. */
export const METAL: Notice = {
  id: 'metal',
  of: ({ axles }) => axles.filter(({ plastic }) => !plastic).map((axle) => at(axle.at)),
};
/** The body of any vehicle. */
export const BODY: Notice = { id: 'vehicle', of: ({ length }) => [{ from: 0, to: length.tenthUm }] };
/** A magnet under one. */
export const MAGNET: Notice = { id: 'magnet', of: ({ magnetAt }) => (magnetAt ? [at(magnetAt)] : []) };
export const NOTHING: Notice = { id: 'nothing', of: () => [] };
