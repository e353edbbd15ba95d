import { ABILITIES, type Ability, VEHICLE_KIND_IDS, VEHICLES } from '../kinds';
import { guideGrams, readLength, readWeight, showLength, showWeight, type TypedLength } from '../measure';
import { type Axle, LONGEST_NAME, type Vehicle } from '../survey';
import { readAxles, writeAxles } from './axles-text';
import type { CellReading, RosterContext } from './context';
import { likelyAxles } from './new-vehicle';
import { sayLength, sayTyped } from './say-length';

type Fields = Omit<Vehicle, 'id'>;

/** One column of the roster: the table on the screen, what is pasted, and the file all go through it. */
export interface RosterColumn {
  key: string;
  title: string;
  /** What it says of a vehicle, shown at its title. */
  means: string;
  /** The words that a cell may hold, where it is one of several. */
  choices?: readonly string[];
  /** Numbers sort as numbers. */
  sortsBy?(vehicle: Fields): number;
  write(vehicle: Fields, context: RosterContext): string;
  /** The same as it was typed, which is where changing it begins. */
  writeTyped?(vehicle: Fields, context: RosterContext): string;
  /** The same for a file, where `write` rounds what nobody typed. */
  writeExactly?(vehicle: Fields): string;
  /** Other titles that a table may have for it, in lower case, and the unit that a number beneath such a title is in. */
  headings?: Readonly<Record<string, string>>;
  /** What a cell changes of a vehicle. */
  read(text: string, vehicle: Fields, context: RosterContext): CellReading<Partial<Fields>>;
  /** What an empty cell of a table says: that there is none, or what is usual where nothing is known yet. Otherwise it says nothing. */
  empty?: 'none' | 'usual';
}

const fine = (value: Partial<Fields>): CellReading<Partial<Fields>> => ({ ok: true, value });
const wrong = (problem: string): CellReading<Partial<Fields>> => ({ ok: false, problem });

const HEAVIEST_GRAMS = 20_000;
const YES_NO = ['yes', 'no'] as const;
const yesOrNo = (yes: boolean): string => (yes ? 'yes' : 'no');
function readYesNo(text: string): boolean | undefined {
  const said = text.toLowerCase();
  if (['yes', 'y', 'true', '1', 'x'].includes(said)) return true;
  return ['no', 'n', 'false', '0', '', '-'].includes(said) ? false : undefined;
}

/** Whether some axle feeds a motor, or lamps; said of all that feed nothing else. */
const fed = (key: string, title: string, means: string, feeds: 'motor' | 'lamp'): RosterColumn => ({
  key,
  title,
  means,
  choices: YES_NO,
  write: ({ axles }) => yesOrNo(axles.some((axle) => axle.feeds === feeds)),
  read(text, { axles }) {
    const yes = readYesNo(text);
    if (yes === undefined) return wrong('Say yes or no.');
    if (yes === axles.some((axle) => axle.feeds === feeds)) return fine({});
    if (yes && axles.length === 0) return wrong('Say where its axles are first.');
    const change = (axle: Axle): Axle => {
      if (yes) return axle.feeds === 'nothing' ? { ...axle, feeds, plastic: undefined } : axle;
      return axle.feeds === feeds ? { ...axle, feeds: 'nothing' } : axle;
    };
    const changed = axles.map(change);
    if (yes && !changed.some((axle) => axle.feeds === feeds)) return wrong('Every axle of it feeds something else.');
    return fine({ axles: changed });
  },
});

/** A length that may be left out. */
const perhapsLength = (key: 'magnetAt' | 'leastRadius', title: string, means: string): RosterColumn => ({
  key,
  title,
  means,
  empty: 'none',
  sortsBy: (vehicle) => vehicle[key]?.tenthUm ?? -1,
  write: (vehicle, context) => (vehicle[key] ? sayLength(vehicle[key], context) : ''),
  writeTyped: (vehicle, context) => (vehicle[key] ? sayTyped(vehicle[key], context) : ''),
  read(text, { length }, { shownUnit, scale }) {
    if (text === '' || text === '-') return fine({ [key]: undefined });
    const read = readLength(text, shownUnit, scale);
    if (!read.ok) return wrong(read.problem);
    if (key === 'magnetAt' && read.value.tenthUm > length.tenthUm) return wrong('It hangs beyond the vehicle.');
    return fine({ [key]: read.value });
  },
});

/** Of two axles, one may be beyond a vehicle that became shorter; they keep their shares of it. */
const stretched = (axles: readonly Axle[], before: TypedLength, now: TypedLength, context: RosterContext): Axle[] =>
  axles.map((axle) => {
    if (axle.at.tenthUm <= now.tenthUm) return axle;
    const tenthUm = Math.round((axle.at.tenthUm * now.tenthUm) / before.tenthUm);
    return { ...axle, at: { tenthUm, typed: showLength(tenthUm, context.shownUnit) } };
  });

const NO_DECODER = 'none';
const DRIVES_ONLY = 'drives';

export const ROSTER_COLUMNS: readonly RosterColumn[] = [
  {
    key: 'name',
    title: 'Name',
    means: 'What you call it. One row for each vehicle, or one for several that are alike.',
    write: ({ name }) => name,
    read(text) {
      if (text === '') return wrong('Type a name.');
      return text.length > LONGEST_NAME.train
        ? wrong(`A name has at most ${LONGEST_NAME.train} letters.`)
        : fine({ name: text });
    },
  },
  {
    key: 'kind',
    title: 'Kind',
    means: 'How it is drawn, and what is assumed of it until you measure it.',
    choices: VEHICLE_KIND_IDS.map((kind) => VEHICLES[kind].title),
    write: ({ kind }) => VEHICLES[kind].title,
    read(text) {
      const said = text.toLowerCase().replace("'", '’');
      const kind = VEHICLE_KIND_IDS.find(
        (id) => VEHICLES[id].title.toLowerCase() === said || id.toLowerCase() === said,
      );
      if (kind) return fine({ kind });
      return wrong(
        `There is no kind “${text}”. Say one of: ${VEHICLE_KIND_IDS.map((id) => VEHICLES[id].title).join(', ')}.`,
      );
    },
  },
  {
    key: 'length',
    title: 'Length',
    means: 'Over couplers.',
    sortsBy: ({ length }) => length.tenthUm,
    write: ({ length }, context) => sayLength(length, context),
    writeTyped: ({ length }, context) => sayTyped(length, context),
    read(text, { axles, length }, context) {
      const read = readLength(text, context.shownUnit, context.scale);
      if (!read.ok) return wrong(read.problem);
      if (read.value.tenthUm === 0) return wrong('It must be more than nothing.');
      return fine({ length: read.value, axles: stretched(axles, length, read.value, context) });
    },
  },
  {
    key: 'axles',
    title: 'Axles',
    means:
      'Where each lies, from its front, and what it feeds: 2 cm motor; 5.5 cm; 11 cm resistor; 14 cm plastic. Empty: as usual for its kind.',
    empty: 'usual',
    sortsBy: ({ axles }) => axles.length,
    write: ({ axles }, context) => writeAxles(axles, (at) => sayLength(at, context)),
    writeTyped: ({ axles }, context) => writeAxles(axles, (at) => sayTyped(at, context)),
    read(text, { kind, length }, context) {
      if (text === '') return fine({ axles: likelyAxles(kind, length, context) });
      const read = readAxles(text, length.tenthUm, context);
      return read.ok ? fine({ axles: read.value }) : read;
    },
  },
  fed('driven', 'Driven', 'It has a motor, which takes current by its axles.', 'motor'),
  fed('lit', 'Lit', 'Lamps take current by its axles, so that detectors see it.', 'lamp'),
  {
    key: 'grams',
    title: 'Weight',
    means:
      'Its weight, as “250 g” or “8.8 oz”; 0 is not weighed. Beneath it the guide weight for its length (NMRA RP-20.1), where the scale has one.',
    headings: { grams: 'g', ounces: 'oz' },
    sortsBy: ({ grams }) => grams,
    write: ({ grams }, { shownUnit }) => showWeight(grams, shownUnit),
    writeExactly: ({ grams }) => showWeight(grams, 'cm'),
    read(text, _, { shownUnit }) {
      const grams = readWeight(text || '0', shownUnit);
      if (grams === undefined || grams > HEAVIEST_GRAMS)
        return wrong(`“${text}” is no weight up to ${showWeight(HEAVIEST_GRAMS, shownUnit)}.`);
      return fine({ grams });
    },
  },
  perhapsLength('magnetAt', 'Magnet', 'Where a magnet hangs under it, from its front. Empty: none.'),
  {
    key: 'takes',
    title: 'Takes resistors',
    means: 'Resistor axles can be fitted to it. No finding will advise them where it says no.',
    choices: YES_NO,
    write: ({ takesNone }) => yesOrNo(!takesNone),
    read(text) {
      const yes = readYesNo(text);
      return yes === undefined ? wrong('Say yes or no.') : fine({ takesNone: yes ? undefined : true });
    },
  },
  perhapsLength('leastRadius', 'Least radius', 'The tightest curve that it runs through. Empty: any.'),
  {
    key: 'decoder',
    title: 'Decoder',
    means: `What its decoder can do: ${NO_DECODER}, ${DRIVES_ONLY}, or of these: ${ABILITIES.join('; ')}.`,
    empty: 'none',
    write: ({ decoder }) => (decoder ? decoder.join('; ') || DRIVES_ONLY : NO_DECODER),
    read(text) {
      const said = text.toLowerCase();
      if (['', '-', NO_DECODER].includes(said)) return fine({ decoder: undefined });
      const words = said.split(/[;,]/).map((word) => word.trim());
      const abilities = words.filter((word) => word !== '' && word !== DRIVES_ONLY);
      const unknown = abilities.find((word) => !(ABILITIES as readonly string[]).includes(word));
      if (unknown) return wrong(`“${unknown}” is none of: ${NO_DECODER}, ${DRIVES_ONLY}, ${ABILITIES.join(', ')}.`);
      return fine({ decoder: [...new Set(abilities)] as Ability[] });
    },
  },
];

/** How a vehicle’s weight compares with the guide: undefined where there is none, or it was not weighed. */
export function weightSays(
  { grams, length }: Fields,
  { scale }: RosterContext,
): { guide: number; tooLight: boolean } | undefined {
  const guide = guideGrams(length.tenthUm, scale);
  return guide === undefined ? undefined : { guide, tooLight: grams > 0 && grams < guide };
}
