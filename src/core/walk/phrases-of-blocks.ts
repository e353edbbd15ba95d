import { ADMISSION_IDS, EMPTY_POST_IDS, SENSOR_KIND_IDS, sensorKind } from '../kinds';
import { readSensorInput, saySensorInput } from '../survey';
import * as part from './parts';
import { certainty, fixedOn, optional, type Phrase, parts, works } from './phrase';
import type { Values } from './walk';

export const detector: Phrase = {
  head: 'detector',
  means: 'Something that notices trains: a section between gaps, or a place.',
  parts: parts(
    part.at(),
    part.oneOf('kind', SENSOR_KIND_IDS, SENSOR_KIND_IDS[0]),
    part.name(),
    optional(part.oneOf('side', ['left', 'right'])),
    part.labelled('hold', optional(part.number('holdMs', 'ms')), 'Say for how long it counts: hold 1000 ms.'),
    part.labelled('notices', optional(part.number('noticesMa', 'ma')), 'Say from how much on: notices 2 mA.'),
    part.labelled(
      'turns',
      optional(part.number('turns', '')),
      'Say how often the feeder is wound through it: turns 2.',
    ),
    part.labelled(
      'input',
      part.name('input', () => ''),
      'Say at which input, in quotes.',
    ),
    works,
    certainty,
    fixedOn,
  ),
  adds({ at, name, holdMs, ...values }, { line }, fresh) {
    const kind = sensorKind(values.kind as (typeof SENSOR_KIND_IDS)[number]);
    const called = name ?? fresh.name(kind.names);
    const id = fresh.id('sensors');
    const input = readSensorInput(values.input as string);
    const anchor = { line, at };
    return [{ list: 'sensors', thing: { ...values, id, name: called, anchor, holdMs: holdMs ?? kind.holdMs, input } }];
  },
  says: ({ sensors }) =>
    sensors.map((one) => {
      const { line, at } = one.anchor;
      const holdMs = one.holdMs === sensorKind(one.kind).holdMs ? undefined : one.holdMs;
      return { line, at: at.tenthUm, values: { ...one, at, holdMs, input: saySensorInput(one.input) } };
    }),
};

export const block: Phrase = {
  head: 'block',
  means: 'The block that this place lies in has a name.',
  needsName: true,
  parts: parts(part.at(), part.name()),
  adds: ({ at, name }, { line }, fresh) => [
    { list: 'blocks', thing: { id: fresh.id('blocks'), name, anchor: { line, at } } },
  ],
  says: ({ blocks }) =>
    blocks.map(({ name, anchor: { line, at } }) => ({ line, at: at.tenthUm, values: { at, name } })),
};

export const area: Phrase = {
  head: 'area',
  means: 'A part of the layout with a name and a purpose.',
  needsName: true,
  parts: parts(
    part.span(),
    part.name(),
    part.labelled(
      'for',
      part.name('purpose', () => ''),
      'Say what for, in quotes.',
    ),
    part.labelled(
      'admits',
      optional(part.oneOf('admits', ADMISSION_IDS)),
      `Say how trains come in: admits ${ADMISSION_IDS.join(', ')}.`,
    ),
    part.labelled(
      'empty',
      optional(part.oneOf('whenEmpty', EMPTY_POST_IDS)),
      'Say what signals show while nobody is there: empty caution or empty stop.',
    ),
    part.labelled('speed', optional(part.number('speedKmh', 'km/h')), 'Say how fast at most: speed 30 km/h.'),
    part.labelled('enters', optional(part.name('comesIn')), 'Say what may come in, in quotes.'),
    part.labelled('leaves', optional(part.name('leavesOut')), 'Say what is left out and why, in quotes.'),
  ),
  adds: ({ span, ...values }, { line }, fresh) => {
    const { at: from, to } = span as Values;
    return [{ list: 'areas', thing: { ...values, id: fresh.id('areas'), line, from, to } }];
  },
  says: ({ areas }) =>
    areas.map((area) => ({
      line: area.line,
      at: area.from.tenthUm,
      values: { ...area, span: { at: area.from, to: area.to } },
    })),
};
