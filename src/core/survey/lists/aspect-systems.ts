import { boolean, type InferType } from 'yup';
import { ASPECT_SYSTEM_IDS, ASPECT_SYSTEMS, LAMP_COLOURS, LAMP_SHAPES, NOWHERE } from '../../kinds';
import { amount, choice, count, id, list, record, text } from '../schema-parts';
import type { ListKind } from './kind';

const MOST_LAMPS = 12;
const LONGEST_ASPECT = 30;

/** So much of a train's own top speed, or so many scale km/h: one of the two. */
const speedLimit = () =>
  record({ share: amount(0.05, 1).optional().default(undefined), kmh: amount(1, 500).optional().default(undefined) })
    .optional()
    .default(undefined);
const lamps = () => list(count(0, MOST_LAMPS - 1), MOST_LAMPS);

/** A school of signalling that somebody made, in the terms of `kinds/aspect-systems/kind.ts`. */
export const aspectSystemSchema = record({
  id: id(),
  name: text(LONGEST_ASPECT),
  lamps: list(
    record({
      shape: choice(...LAMP_SHAPES),
      colour: choice(...LAMP_COLOURS),
      head: count(0, 3).optional().default(undefined),
    }),
    MOST_LAMPS,
  ),
  aspects: list(
    record({
      id: text(LONGEST_ASPECT),
      means: text(300),
      calls: text(60).optional().default(undefined),
      /** Left out, it obliges to stop before no signal. */
      stopsIn: count(0, 5).optional().default(undefined),
      /** It says nothing of what stands on the way; left out, it does. */
      onSight: boolean().typeError('must be true or false').optional().default(undefined),
      speed: speedLimit(),
      speedAtNext: speedLimit(),
      leads: choice('straight', 'aside').optional().default(undefined),
      lit: lamps(),
      flashing: lamps().optional().default(undefined),
    }),
    20,
  ),
});
export type OwnAspectSystem = InferType<typeof aspectSystemSchema>;

export const aspectSystems: ListKind<OwnAspectSystem> = {
  title: 'Aspect system',
  prefix: 'as',
  since: 6,
  most: 50,
  longestName: LONGEST_ASPECT,
  schema: aspectSystemSchema,
  refers: [],
  faults(system, tell, { document }) {
    const { name, aspects } = system;
    const others = [
      ...Object.values(ASPECT_SYSTEMS),
      ...document.aspectSystems.filter((other) => other !== system),
    ].flatMap((other) =>
      other.aspects.map(({ id, stopsIn, onSight = false }) => ({ id, stopsIn: stopsIn ?? NOWHERE, onSight })),
    );
    if (ASPECT_SYSTEM_IDS.includes(system.id))
      tell('id', `“${system.id}” is the id of a system that comes with Roblik.`, 'Give it another id.');
    if (system.lamps.length === 0) tell('lamps', `“${name}” has no lamp.`, 'Give it at least one.');
    if (aspects.length < 2)
      tell('aspects', `“${name}” has fewer than two aspects.`, 'Give it one for stop, and one that shows proceed.');
    if (aspects[0] && aspects[0].stopsIn !== 0)
      tell('aspects[0].stopsIn', `The first aspect of “${name}” does not stop trains.`, 'Put the one for stop first.');
    aspects.forEach((aspect, i) => {
      const at = `aspects[${i}]`;
      if (i > 0 && aspect.stopsIn === 0)
        tell(`${at}.stopsIn`, `“${aspect.id}” is a second aspect for stop.`, 'A system has one, its first.');
      const twin = others.find(({ id }) => id === aspect.id);
      if (twin && (twin.stopsIn !== (aspect.stopsIn ?? NOWHERE) || twin.onSight !== (aspect.onSight ?? false)))
        tell(
          `${at}.id`,
          `“${aspect.id}” of “${name}” means something else in another system.`,
          'Give it a name of its own: one name means one thing on a layout.',
        );
      if (aspects.findIndex((other) => other.id === aspect.id) !== i)
        tell(`${at}.id`, `Two aspects of “${name}” are called “${aspect.id}”.`, 'Rename one of them.');
      if (aspect.lit.length === 0) tell(`${at}.lit`, `“${aspect.id}” lights no lamp.`, 'Choose at least one.');
      if (aspect.lit.some((lamp) => lamp >= system.lamps.length))
        tell(`${at}.lit`, `“${aspect.id}” lights a lamp that “${name}” does not have.`, 'Choose another, or add it.');
      if (aspect.flashing?.some((lamp) => !aspect.lit.includes(lamp)))
        tell(`${at}.flashing`, `“${aspect.id}” has a lamp flash that is not lit.`, 'Light it, or leave it out.');
      for (const field of ['speed', 'speedAtNext'] as const) {
        const limit = aspect[field];
        if (limit && (limit.share === undefined) === (limit.kmh === undefined))
          tell(`${at}.${field}`, `The speed of “${aspect.id}” is not said, or twice.`, 'Say a share, or km/h.');
      }
    });
  },
};
