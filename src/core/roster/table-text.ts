import Papa from 'papaparse';
import type { VehicleKindId } from '../kinds';
import type { LayoutDocument, Vehicle } from '../survey';
import { ROSTER_COLUMNS, type RosterColumn } from './columns';
import type { CellReading } from './context';
import { newVehicle } from './new-vehicle';

/** The roster as comma-separated values (RFC 4180), a row of titles first. */
export function writeRoster(document: Pick<LayoutDocument, 'vehicles' | 'scale' | 'shownUnit'>): string {
  const titles = ROSTER_COLUMNS.map(({ title }) => title);
  const rows = document.vehicles.map((vehicle) =>
    ROSTER_COLUMNS.map(
      (column) => column.writeExactly?.(vehicle) ?? (column.writeTyped ?? column.write)(vehicle, document),
    ),
  );
  return `${Papa.unparse([titles, ...rows])}\r\n`;
}

/** What a table says: vehicles that are new or changed, and every row that says something wrong. */
export interface RosterReading {
  rows: number;
  vehicles: (Omit<Vehicle, 'id'> & { id?: string })[];
  bad: { row: number; text: string; problem: string }[];
  /** Titles that no column has; what is beneath them is left out. */
  leftOut: string[];
}

/**
 * Reads rows of a file or pasted from a spreadsheet: separated by commas, semicolons or tabs, with a row of titles in any order, or without
 * one in the order of the columns. A row that names a vehicle of the roster changes it, in what the row says.
 */
export function readRoster(text: string, document: LayoutDocument): RosterReading {
  const { data } = Papa.parse<string[]>(text.replace(/^﻿/, '').trimEnd(), { delimitersToGuess: [',', '\t', ';'] });
  const rows = data.map((cells, i) => ({ row: i + 1, cells: cells.map((cell) => cell.trim()) }));
  const titles = titlesIn(rows[0]?.cells ?? []);
  const columns: readonly (Titled | undefined)[] = titles?.columns ?? ROSTER_COLUMNS.map((column) => ({ column }));
  const reading: RosterReading = { rows: 0, vehicles: [], bad: [], leftOut: titles?.leftOut ?? [] };
  const known = new Map(document.vehicles.map((vehicle) => [vehicle.name, vehicle]));
  const seen = new Map<string, number>();
  for (const { row, cells } of titles ? rows.slice(1) : rows) {
    if (cells.every((cell) => cell === '')) continue;
    reading.rows += 1;
    const said = new Map(columns.map((titled, i) => [titled?.column.key, withUnit(cells[i] ?? '', titled?.unit)]));
    const tell = (problem: string) => reading.bad.push({ row, text: cells.filter(Boolean).join(' | '), problem });
    const name = said.get('name') ?? '';
    const twin = seen.get(name);
    if (name === '') tell('It has no name.');
    else if (twin !== undefined) tell(`“${name}” is in row ${twin} already.`);
    else {
      const read = readRow(said, known.get(name), document);
      if (!read.ok) tell(read.problem);
      else {
        seen.set(name, row);
        reading.vehicles.push(read.vehicle);
      }
    }
  }
  return reading;
}

/** A column of a table, and the unit of its plain numbers where its title says one. */
interface Titled {
  column: RosterColumn;
  unit?: string;
}
const withUnit = (cell: string, unit: string | undefined): string =>
  unit !== undefined && /^[\d.]+$/.test(cell) ? `${cell} ${unit}` : cell;

/** The columns that a first row names; undefined when it names no vehicles by name, and so is a row like the others. */
function titlesIn(cells: string[]): { columns: (Titled | undefined)[]; leftOut: string[] } | undefined {
  const columns = cells.map((cell): Titled | undefined => {
    const said = cell.toLowerCase();
    const column = ROSTER_COLUMNS.find(({ title, headings }) => title.toLowerCase() === said || headings?.[said]);
    return column && { column, ...(column.headings?.[said] && { unit: column.headings[said] }) };
  });
  if (!columns.some((titled) => titled?.column.key === 'name')) return undefined;
  return { columns, leftOut: cells.filter((cell, i) => cell !== '' && !columns[i]) };
}

function readRow(
  said: ReadonlyMap<string | undefined, string>,
  known: Vehicle | undefined,
  document: LayoutDocument,
): { ok: true; vehicle: RosterReading['vehicles'][number] } | { ok: false; problem: string } {
  const name = said.get('name')!;
  const naming = ROSTER_COLUMNS.find(({ key }) => key === 'name')!.read(name, {} as Vehicle, document);
  if (!naming.ok) return naming;
  const kind = readKind(said.get('kind'), document);
  if (!kind.ok) return kind;
  let vehicle: RosterReading['vehicles'][number] = known ?? newVehicle(kind.value, name, document);
  for (const column of ROSTER_COLUMNS) {
    const cell = said.get(column.key) ?? '';
    if (
      column.key === 'name' ||
      (cell === '' && !(column.empty === 'none' ? said.has(column.key) : column.empty && !known))
    )
      continue;
    const read = column.read(cell, vehicle, document);
    if (!read.ok) return { ok: false, problem: `${column.title}: ${read.problem}` };
    vehicle = { ...vehicle, ...read.value };
  }
  return { ok: true, vehicle };
}

/** What a new one is, on which all else of it rests. */
function readKind(cell: string | undefined, document: LayoutDocument): CellReading<VehicleKindId> {
  if (!cell) return { ok: true, value: 'wagon' };
  const read = ROSTER_COLUMNS.find(({ key }) => key === 'kind')!.read(cell, {} as Vehicle, document);
  return read.ok ? { ok: true, value: read.value.kind! } : read;
}
