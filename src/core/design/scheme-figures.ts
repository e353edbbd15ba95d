import { giveInputs, vehiclesOf } from '../detection';
import { ADMISSIONS, sensorKind } from '../kinds';
import { TENTH_UM_PER_METRE, type TenthUm } from '../measure';
import { contactLoads, pointsOf } from '../patterns';
import { type LayoutDocument, type Prices, signalsOf, systemOf, type Train, USUAL_MODULES } from '../survey';
import { straighten, xOf } from '../track';
import { checkDesign } from './check-design';

/** What a way to protect a layout takes, costs, and leaves. */
export interface SchemeFigures {
  heads: number;
  detectors: number;
  spots: number;
  /** Timers, toggles and buttons that tell of blocks. */
  tellers: number;
  modules: number;
  motors: number;
  /** Motors whose points a signal asks about: each needs a contact that is free of voltage, and how many of these are more than it has. */
  contacts: number;
  contactsMissing: number;
  /** Axles of trains with a resistor. */
  axles: number;
  /** From sensors and heads to the nearest module, along the line. */
  wireM: number;
  /** Track that nothing watches. */
  unwatched: TenthUm;
  unwatchedOn: { line: string; from: TenthUm; to: TenthUm }[];
  /** Names of points onto which trains run past no signal. */
  unprotected: string[];
  /** Areas that were left unprotected on purpose, with why. */
  leftOut: { name: string; why: string }[];
  /** Areas for which nobody has decided how trains come in. */
  undecided: string[];
  /** What somebody who is new has to learn: ways of being let in, aspects, people to call. */
  ways: number;
  aspects: number;
  calls: number;
  /** Findings that are unsafe and that nobody has accepted. */
  unsafe: number;
}

/** A changeover contact is often needed for the frog; common practice, no source. What a motor has beside that is its spare ones. */
export function schemeFigures(document: LayoutDocument): SchemeFigures {
  const { scheme, findings } = checkDesign(document);
  const { partition } = scheme;
  const drawing = straighten(document);
  const modules = document.modules ?? USUAL_MODULES;
  const given = giveInputs(document, drawing, modules);
  const x = (line: string, at: TenthUm) => xOf(drawing.lines.get(line)!, at);
  const members = new Map<string, TenthUm[]>();
  for (const { id, anchor } of document.sensors) {
    const [module] = given.inputs.get(id)!.split('.') as [string];
    members.set(module, [...(members.get(module) ?? []), x(anchor.line, anchor.at.tenthUm)]);
  }
  const middles = [...members.values()].map((own) => [...own].sort((a, b) => a - b)[own.length >> 1]!);
  const signals = signalsOf(document);
  const toModule = signals.map(({ line, at, system }) => {
    const own = x(line, at.tenthUm);
    const near = middles.length > 0 ? Math.min(...middles.map((middle) => Math.abs(middle - own))) : 0;
    return near * (systemOf(document, system).lamps.length + 1);
  });
  const wireM = (given.wire + toModule.reduce((sum, one) => sum + one, 0)) / TENTH_UM_PER_METRE;
  const spots = document.sensors.filter(
    ({ kind }) => sensorKind(kind).reachMm !== 'section' && !sensorKind(kind).tells,
  ).length;
  const spare = new Map(document.turnouts.map(({ id, spareContacts }) => [id, spareContacts]));
  const motors = partition.graph.motors;
  const loads = motors.map((motor) => ({ motor, count: contactLoads(scheme, motor).length }));
  const missing = loads.reduce(
    (sum, { motor, count }) => sum + Math.max(0, count - (spare.get(pointsOf(scheme, motor)?.id ?? '') ?? 0)),
    0,
  );
  const dark = partition.blocks.filter(
    ({ section, index }) => partition.sections[section]!.sensors.length === 0 && !partition.inferred.has(index),
  );
  const unwatchedOn = dark.flatMap((block) =>
    block.pieces.map((p) => {
      const { line, from, to } = partition.pieces[p]!;
      return { line, from, to };
    }),
  );
  const { areas } = document;
  const open = areas.filter(({ admits }) => admits !== undefined && !ADMISSIONS[admits].signals);
  return {
    heads: signals.length,
    detectors: document.sensors.filter(({ kind }) => sensorKind(kind).reachMm === 'section').length,
    spots,
    tellers: document.sensors.filter(({ kind }) => sensorKind(kind).tells).length,
    modules: members.size,
    motors: motors.length,
    contacts: loads.reduce((sum, { count }) => sum + count, 0),
    contactsMissing: missing,
    axles: document.trains.reduce((sum, train) => sum + resistorsOf(document, train), 0),
    wireM,
    unwatched: unwatchedOn.reduce((sum, { from, to }) => sum + to - from, 0),
    unwatchedOn,
    unprotected: findings
      .filter(({ kind }) => kind === 'points without protection')
      .flatMap(({ subject }) => nameOf(document, subject) ?? []),
    leftOut: open.map(({ name, admits, leavesOut }) => ({ name, why: leavesOut || ADMISSIONS[admits!].says })),
    undecided: areas.filter(({ admits }) => admits === undefined).map(({ name }) => name),
    ways: new Set(areas.flatMap(({ admits }) => admits ?? [])).size,
    aspects: new Set(signals.flatMap(({ system }) => systemOf(document, system).aspects.map(({ id }) => id))).size,
    calls: new Set(areas.flatMap(({ name, admits }) => (admits && ADMISSIONS[admits].post ? [name] : []))).size,
    unsafe: findings.filter(({ severity, accepted }) => severity === 'unsafe' && accepted === undefined).length,
  };
}

const resistorsOf = (document: LayoutDocument, train: Train): number =>
  vehiclesOf(document, train).flatMap(({ axles }) => axles.filter(({ feeds }) => feeds === 'resistor')).length;

/** What that costs, and how many months it takes at the budget of one; no end of them without a budget. */
export function costOf(figures: SchemeFigures, prices: Prices): { cost: number; months: number } {
  const cost =
    figures.heads * prices.head +
    figures.detectors * prices.detector +
    /** A timer or a button costs about what a spot does; our assumption. */
    (figures.spots + figures.tellers) * prices.spot +
    figures.modules * prices.module +
    figures.motors * prices.motor +
    figures.axles * prices.axle +
    figures.wireM * prices.metre;
  return { cost, months: prices.month > 0 ? cost / prices.month : Number.POSITIVE_INFINITY };
}

const nameOf = ({ turnouts, crossings }: LayoutDocument, id: string): string | undefined =>
  [...turnouts, ...crossings].find((one) => one.id === id)?.name;
