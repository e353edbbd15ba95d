import type { Partition } from '../detection';
import type { Aspect, AspectSystem } from '../kinds';
import { type Compiled, compileProgram, type Program } from '../logic';
import {
  arrivalsOf,
  commandedOf,
  compileScheme,
  guardsOf,
  type NamedRoute,
  type OwnRuleFault,
  type Post,
  postsOf,
  rivalRoutes,
  type Scheme,
  unspokenAtFirst,
  writeRules,
} from '../patterns';
import type { SignalReading, TrafficSections } from '../signals';
import { type LayoutDocument, type OwnRule, type Sensor, systemOf, type TurnoutPosition } from '../survey';
import { type Automatic, automaticIn } from './automatic';
import { keyOf } from './key';
import { type PlantParameters, plantParameters } from './plant-parameters';
import { lockOf } from './refusal';
import { type TerminalKind, Terminals } from './terminals';
import { type Thing, thingOf } from './things';

/** Finds something when it is first asked for, and once. */
function once<Found>(find: () => Found): () => Found {
  let found: { it: Found } | undefined;
  return () => {
    found ??= { it: find() };
    return found.it;
  };
}

/** A route over points that are held until a train has arrived, as a person can release it. */
export interface Release {
  /** The number of its signal, its id, and what people call what it leads to. */
  signal: number;
  route: string;
  to: string;
  /** Motors that it holds. */
  motors: readonly number[];
  /** While any of these is occupied it is refused. */
  blocks: readonly number[];
  /** Where the rules have the input, and whether a train is under way. */
  slot: number;
  underWay: number;
}

/** A route that people set by entry and exit. */
export interface Commanded {
  /** The number of its signal, its id, and what people call what it leads to. */
  signal: number;
  route: string;
  to: string;
  /** Routes, by their places in the list, of which none can be set beside it. */
  rivals: readonly number[];
  /** Where the rules have its button, the one that cancels, and whether it is set. */
  button: number;
  cancel: number;
  isSet: number;
  /** Trains set it, until this is on. */
  byTrainsUnless: number | undefined;
}

function commandedIn({ terminals }: System, scheme: Scheme): Commanded[] {
  const all = commandedOf(scheme);
  return all.flatMap((route): Commanded[] => {
    const { id, to, reading } = route;
    const [button, isSet] = [
      terminals.find('route button', reading.index, id),
      terminals.find('route set', reading.index, id),
    ];
    const cancel = terminals.find('cancel button', reading.index);
    if (!button || !isSet || !cancel) return [];
    const rivals = rivalRoutes(scheme, route).map((rival) => all.indexOf(rival));
    const byTrainsUnless = terminals.find('switched off', reading.index, 'routes')?.slot;
    const slots = { button: button.slot, cancel: cancel.slot, isSet: isSet.slot, byTrainsUnless };
    return [{ signal: reading.index, route: id, to, rivals, ...slots }];
  });
}

function releasesIn({ terminals }: System, scheme: Scheme): Release[] {
  return arrivalsOf(scheme).flatMap(({ route: { id, to, reading }, motors, blocks }): Release[] => {
    const [input, flag] = [
      terminals.find('release', reading.index, id),
      terminals.find('under way', reading.index, id),
    ];
    if (!input || !flag) return [];
    const held = motors.map(({ index }) => index);
    return [{ signal: reading.index, route: id, to, motors: held, blocks, slot: input.slot, underWay: flag.slot }];
  });
}

/**
 * What a document compiles to: the track with what watches it, the signals with their routes, the rule program with its terminals, and what the
 * trains and motors are like. Whatever explains, tries, rehearses, proves or exports a design takes this, and no document. The rules are
 * written when they are first asked for.
 */
export class System {
  readonly partition: Partition;
  readonly readings: readonly SignalReading[];
  readonly trafficSections: TrafficSections;
  /** The routes from each signal, by its number. */
  readonly routesOf: readonly NamedRoute[][];
  /** Everything that a signal can show; rules and runs have an aspect by its number here. */
  readonly aspects: readonly Aspect[];
  readonly sensors: readonly Sensor[];
  readonly posts: readonly Post[];
  /** Blocks of which nobody says anything when power comes on. */
  readonly unspokenAtFirst: ReadonlySet<number>;
  /** How many people run it at once; at least one. */
  readonly people: number;
  /** Rules of somebody’s own as they were written; `program` has those that stand. */
  readonly rules: readonly OwnRule[];
  /** The aspect system of each signal, by its number. */
  readonly aspectSystems: readonly AspectSystem[];
  private readonly written: () => { program: Program; faults: readonly OwnRuleFault[] };
  private readonly compile: () => Compiled;
  private readonly wire: () => Terminals;
  private readonly measure: () => PlantParameters;
  private readonly guard: () => readonly (number | undefined)[];
  private readonly hash: () => string;
  private readonly held: () => readonly Release[];
  private readonly setByPeople: () => readonly Commanded[];
  private readonly works: () => readonly Automatic[];

  constructor(
    private readonly scheme: Scheme,
    /** What becomes of the program after it was written. */
    private readonly change: (program: Program) => Program = (program) => program,
  ) {
    const { document } = scheme;
    this.partition = scheme.partition;
    this.readings = scheme.readings;
    this.trafficSections = scheme.trafficSections;
    this.routesOf = scheme.routesOf;
    this.aspects = scheme.aspects;
    this.sensors = document.sensors;
    this.posts = postsOf(scheme);
    this.unspokenAtFirst = unspokenAtFirst(scheme);
    this.people = Math.max(1, document.people ?? 1);
    this.measure = once(() => plantParameters(document));
    this.rules = document.rules;
    this.aspectSystems = scheme.readings.map(({ signal }) => systemOf(document, signal.system));
    this.written = once(() => {
      const { program, faults } = writeRules(scheme);
      return { program: this.change(program), faults };
    });
    this.compile = once(() => compileProgram(this.program));
    this.wire = once(() => new Terminals(this.program, this.compiled));
    this.guard = once(() => this.partition.graph.motors.map(({ index }) => lockOf(this, index)?.slot));
    this.hash = once(() => keyOf(this));
    this.held = once(() => releasesIn(this, scheme));
    this.setByPeople = once(() => commandedIn(this, scheme));
    this.works = once(() => automaticIn(this));
  }

  /** The same layout, of which another program runs. */
  withProgram(change: (program: Program) => Program): System {
    return new System(this.scheme, (program) => change(this.change(program)));
  }
  /** What a terminal of a kind belongs to, by its number; undefined where there is none. */
  thing(kind: TerminalKind, of: number): Thing | undefined {
    return thingOf(this, kind, of);
  }

  get plant(): PlantParameters {
    return this.measure();
  }
  get program(): Program {
    return this.written().program;
  }
  /** Rules of somebody’s own that cannot stand as they are. */
  get ownRuleFaults(): readonly OwnRuleFault[] {
    return this.rules.length > 0 ? this.written().faults : [];
  }
  /** Throws a RuleProgramError when the rules cannot be compiled. */
  get compiled(): Compiled {
    return this.compile();
  }
  get terminals(): Terminals {
    return this.wire();
  }
  /** Where the rules have what keeps each motor from moving, by its number; undefined where what drives it asks for no lock. */
  get locks(): readonly (number | undefined)[] {
    return this.guard();
  }
  /** Runs that a person can give up: routes over points that are held until arrival. */
  get releases(): readonly Release[] {
    return this.held();
  }
  /** Points beside a route that have to lie so before its signal is cleared for it. */
  beside(route: NamedRoute): { motor: number; position: TurnoutPosition }[] {
    return guardsOf(this.scheme, route).map(({ motor, position }) => ({ motor: motor.index, position }));
  }
  /** Routes that people, or trains, set, and people cancel. */
  get commanded(): readonly Commanded[] {
    return this.setByPeople();
  }
  /** What works by itself, and can be switched off. */
  get automatic(): readonly Automatic[] {
    return this.works();
  }
  /** A hash of exactly what runs: two documents with one key do the same, whatever their things are called. */
  get key(): string {
    return this.hash();
  }
}

export const compileSystem = (document: LayoutDocument): System => new System(compileScheme(document));
