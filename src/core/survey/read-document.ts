import { ValidationError } from 'yup';
import { showLength, type TenthUm } from '../measure';
import { migrateDocument } from './migrate-document';
import { DOCUMENT_FORMAT, DOCUMENT_VERSION, documentSchema, type LayoutDocument, type LineEnd } from './schema';

/** One thing wrong in a file: where, what, and what to do. */
export interface Fault {
  /** A path such as features[3].at, or “the file”. */
  place: string;
  problem: string;
  remedy: string;
}

export type DocumentReading = { ok: true; document: LayoutDocument } | { ok: false; faults: Fault[] };

const LARGEST_CHARACTERS = 16 * 1024 * 1024;
const MOST_FAULTS = 50;

const whole = (problem: string, remedy: string): DocumentReading => ({
  ok: false,
  faults: [{ place: 'the file', problem, remedy }],
});

/** Reads a file's text into a document, or names every fault in it. Nothing of a faulty file is ever used. */
export function readDocumentText(text: string): DocumentReading {
  if (text.length > LARGEST_CHARACTERS) {
    return whole(
      'It is larger than 16 MB.',
      'A layout file is a few hundred kilobytes at most. Check that you chose the right file.',
    );
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const where = error instanceof Error ? error.message : 'it ends in the middle';
    return whole(
      `It is not JSON (${where.slice(0, 120)}).`,
      'Choose a file that Roblik exported; it ends in .roblik.json.',
    );
  }
  return readDocument(value);
}

/** Checks an unknown value against the schema and then every reference and distance in it. */
export function readDocument(value: unknown): DocumentReading {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    return whole('It is JSON, but not a layout.', `A layout begins with "format": "${DOCUMENT_FORMAT}".`);
  }
  const head = value as { format?: unknown; version?: unknown };
  if (head.format !== DOCUMENT_FORMAT) {
    return whole('It is JSON, but not a layout.', `A layout begins with "format": "${DOCUMENT_FORMAT}".`);
  }
  if (typeof head.version === 'number' && head.version > DOCUMENT_VERSION) {
    return whole(
      `It was written by a newer Roblik (document version ${head.version}; this one reads up to ${DOCUMENT_VERSION}).`,
      'Update Roblik, then import it again.',
    );
  }
  let document: LayoutDocument;
  try {
    document = documentSchema.validateSync(migrateDocument(value as Record<string, unknown>, DOCUMENT_VERSION), {
      abortEarly: false,
      strict: true,
    }) as unknown as LayoutDocument;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return { ok: false, faults: limit(inner.map(asFault)) };
  }
  const faults = referenceFaults(document);
  return faults.length > 0 ? { ok: false, faults: limit(faults) } : { ok: true, document };
}

function asFault(error: ValidationError): Fault {
  const place = error.path || 'the file';
  const problem = error.message.replace('this ', '');
  return { place, problem: `It ${problem}.`, remedy: `Mend ${place} in the file, or export it again.` };
}

function limit(faults: Fault[]): Fault[] {
  if (faults.length <= MOST_FAULTS) return faults;
  const more = faults.length - MOST_FAULTS;
  return [
    ...faults.slice(0, MOST_FAULTS),
    { place: 'the file', problem: `${more} more faults are not listed.`, remedy: 'Mend the ones above first.' },
  ];
}

/** Ids that are used twice or point nowhere, distances past an end, two gaps at one place, a leg that is no leg. */
export function referenceFaults(document: LayoutDocument): Fault[] {
  const faults: Fault[] = [];
  const say = (place: string, problem: string, remedy: string) => faults.push({ place, problem, remedy });
  const lines = new Map(document.lines.map((line) => [line.id, line]));
  const unit = document.shownUnit;

  const seen = new Map<string, string>();
  const claim = (place: string, id: string) => {
    const first = seen.get(id);
    if (first) say(place, `The id “${id}” is used twice, first at ${first}.`, 'Give one of them another id.');
    else seen.set(id, place);
  };
  const lists = [
    'lines',
    'joins',
    'turnouts',
    'crossings',
    'features',
    'blocks',
    'detectors',
    'areas',
    'vehicles',
    'trains',
  ] as const;
  for (const name of lists) {
    document[name].forEach((thing, i) => {
      claim(`${name}[${i}].id`, thing.id);
    });
  }

  const onLine = (place: string, line: string, at?: TenthUm, end = 'at') => {
    const found = lines.get(line);
    if (!found)
      return say(`${place}.line`, `There is no line “${line}”.`, 'Name a line that exists, or add that line.');
    if (at !== undefined && at > found.length.tenthUm) {
      const length = showLength(found.length.tenthUm, unit);
      say(
        `${place}.${end}`,
        `${showLength(at, unit)} is past the end of line “${found.name}”, which is ${length} long.`,
        `Move it to ${length} or less, or correct the length of the line.`,
      );
    }
  };

  if (document.lines.length > 0 && !lines.has(document.referenceLine)) {
    say(
      'referenceLine',
      `There is no line “${document.referenceLine}”.`,
      'Name the line whose distances the ruler shows.',
    );
  }
  document.lines.forEach((line, i) => {
    if (line.length.tenthUm === 0)
      say(`lines[${i}].length`, `Line “${line.name}” has no length.`, 'Give its length by tape.');
  });

  const taken = new Map<string, string>();
  const takeEnd = (place: string, end: LineEnd) => {
    onLine(place, end.line);
    const key = `${end.line} ${end.end}`;
    const first = taken.get(key);
    if (first)
      say(
        place,
        `The ${end.end} of line “${end.line}” is already used at ${first}.`,
        'An end can go to one place only.',
      );
    else taken.set(key, place);
  };
  document.joins.forEach((join, i) => {
    takeEnd(`joins[${i}].a`, join.a);
    takeEnd(`joins[${i}].b`, join.b);
  });
  document.turnouts.forEach((turnout, i) => {
    const place = `turnouts[${i}]`;
    onLine(place, turnout.line, turnout.at.tenthUm);
    takeEnd(`${place}.diverging`, turnout.diverging);
    const length = lines.get(turnout.line)?.length.tenthUm;
    const legLess = turnout.facing === 'up' ? turnout.at.tenthUm === length : turnout.at.tenthUm === 0;
    if (turnout.straight) {
      takeEnd(`${place}.straight`, turnout.straight);
      takeEnd(`${place}.at`, { line: turnout.line, end: turnout.facing === 'up' ? 'end' : 'start' });
      if (length !== undefined && !legLess) {
        say(
          `${place}.straight`,
          `${turnout.name} stands in the middle of its line, which is its straight leg already.`,
          'Leave “straight” out, or end the line at the blade tips.',
        );
      }
    } else if (length !== undefined && legLess) {
      say(
        `${place}.at`,
        `${turnout.name} has no straight leg: its line ends at the blade tips.`,
        'Move it, lengthen the line, or say which line is the straight leg.',
      );
    }
    if (turnout.throwsWith && !document.turnouts.some((other) => other.id === turnout.throwsWith)) {
      say(
        `${place}.throwsWith`,
        `There is no turnout “${turnout.throwsWith}”.`,
        'Name a turnout that exists, or leave it out.',
      );
    }
  });
  document.crossings.forEach((crossing, i) => {
    onLine(`crossings[${i}].a`, crossing.a.line, crossing.a.at.tenthUm);
    onLine(`crossings[${i}].b`, crossing.b.line, crossing.b.at.tenthUm);
  });

  const cuts = new Map<string, string>();
  document.features.forEach((feature, i) => {
    const place = `features[${i}]`;
    onLine(place, feature.line, feature.at.tenthUm);
    if ('to' in feature) {
      onLine(place, feature.line, feature.to.tenthUm, 'to');
      if (feature.to.tenthUm <= feature.at.tenthUm)
        say(`${place}.to`, 'It ends before it begins.', 'Swap the two distances.');
    }
    if (feature.kind === 'gap' || feature.kind === 'mark') {
      const key = `${feature.line} ${feature.at.tenthUm}`;
      const first = cuts.get(key);
      const where = `${showLength(feature.at.tenthUm, unit)} on line “${lines.get(feature.line)?.name ?? feature.line}”`;
      if (first)
        say(
          place,
          `There is already a gap or block mark at ${where} (${first}).`,
          'Delete one of the two, or move it.',
        );
      else cuts.set(key, place);
    }
  });
  document.blocks.forEach((block, i) => {
    onLine(`blocks[${i}].anchor`, block.anchor.line, block.anchor.at.tenthUm);
  });
  document.detectors.forEach((detector, i) => {
    onLine(`detectors[${i}].anchor`, detector.anchor.line, detector.anchor.at.tenthUm);
  });
  document.areas.forEach((area, i) => {
    onLine(`areas[${i}]`, area.line, area.to.tenthUm, 'to');
    if (area.to.tenthUm <= area.from.tenthUm)
      say(`areas[${i}].to`, `Area “${area.name}” ends before it begins.`, 'Swap the two distances.');
  });
  const vehicles = new Map(document.vehicles.map((vehicle) => [vehicle.id, vehicle]));
  document.vehicles.forEach((vehicle, i) => {
    vehicle.axles.forEach((axle, k) => {
      if (axle.at.tenthUm > vehicle.length.tenthUm) {
        say(
          `vehicles[${i}].axles[${k}].at`,
          `An axle of “${vehicle.name}” lies beyond its length.`,
          'Measure it from the leading end of the vehicle.',
        );
      }
    });
    if (vehicle.length.tenthUm === 0)
      say(`vehicles[${i}].length`, `“${vehicle.name}” has no length.`, 'Give its length over couplers.');
  });
  document.trains.forEach((train, i) => {
    if (train.vehicles.length === 0)
      say(`trains[${i}].vehicles`, `Train “${train.name}” has no vehicles.`, 'Give it at least one.');
    train.vehicles.forEach((id, k) => {
      if (!vehicles.has(id))
        say(`trains[${i}].vehicles[${k}]`, `There is no vehicle “${id}”.`, 'Name a vehicle that exists.');
    });
    if (train.start) onLine(`trains[${i}].start`, train.start.line, train.start.at.tenthUm);
  });
  return faults;
}

/** The document as text for a file: stable field order, two-space indent, so that two exports compare line by line. */
export function writeDocumentText(document: LayoutDocument): string {
  return `${JSON.stringify(document, null, 2)}\n`;
}
