import { sensorKind } from '../kinds';
import { Digest } from './digest';
import type { System } from './system';

/**
 * What runs, as one short text: the compiled rules and how they are connected, the track, what is on it, and what aspects oblige to. Ids are
 * in it and names are not, so that a renamed thing changes nothing, and neither does what is for people alone: words, what was typed,
 * where things are drawn, what is wired to what.
 */
export function keyOf(system: System): string {
  const digest = new Digest();
  digest.addText(JSON.stringify([rulesOf(system), trackOf(system), trainsOf(system)]));
  return digest.text;
}

/** Values of enumerations are numbers here, so that an aspect that gets another name is the same. */
function rulesOf({ compiled, program, terminals, aspects, posts, people, unspokenAtFirst }: System) {
  const { code, names, inputs, state, scanMs } = compiled;
  return [
    [scanMs, inputs, names, [...code], [...state]],
    program.declarations.map(({ type }) => program.enums[type]?.length ?? 2),
    terminals.all.map(({ kind, of, which, slot }) => [kind, of, which, slot]),
    aspects.map(({ stopsIn, onSight, speed, speedAtNext }) => [String(stopsIn), onSight, speed, speedAtNext]),
    posts.map(({ id, readings }) => [id, readings.map(({ index }) => index)]),
    [people, [...unspokenAtFirst]],
  ];
}

function trackOf({ partition, readings, trafficSections, sensors }: System) {
  const { graph, pieces, blocks, sections, fields, inferred: told } = partition;
  return [
    graph.edges.map(({ line, from, to, ends, running }) => [line, from, to, ends, ...(running ? [running] : [])]),
    graph.points.map(({ id, ports, motors, clearance, kind }) => [id, ports, motors, clearance, kind.ways, kind.fouls]),
    graph.motors.map(({ id, points, throwMs, lies, throwsWith }) => [id, points, throwMs, lies, throwsWith]),
    graph.fouling,
    pieces.map(({ edge, from, to, block, section, bounded }) => [edge, from, to, block, section, bounded.map(boundOf)]),
    blocks.map(({ id, ends }) => [id, ends, told.get(blocks.findIndex((block) => block.id === id))?.by]),
    sections.map((section) => section.blocks),
    fields.all.map(({ notices, on, sensors: watch, fedBy }) => [notices, on, watch, fedBy]),
    fields.ofSensor,
    sensors.map(({ id, kind, holdMs }) => [id, kind, holdMs, sensorKind(kind).pulses]),
    readings.map(({ signal, piece, exit, routes }) => [signal.id, signal.at.tenthUm, piece, exit, routes]),
    trafficSections.all.map((trafficSection) => [
      trafficSection.id,
      trafficSection.blocks,
      trafficSection.sides,
      trafficSection.bothWays,
    ]),
  ];
}
const boundOf = (bound: { kind: string; gap?: boolean } | undefined) => bound && [bound.kind, bound.gap];

function trainsOf({ plant }: System) {
  return [
    plant.closes,
    plant.mmPerS(1),
    plant.trains.map(({ id, consist, topMmPerS, accelerationMmPerS2, brakingMmPerS2, startDelayMs, start }) => [
      id,
      consist,
      [topMmPerS, accelerationMmPerS2, brakingMmPerS2, startDelayMs],
      start,
    ]),
  ];
}
