'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { giveInputs, inputOf } from '@/core/detection';
import { sensorKind } from '@/core/kinds';
import { showLength, showWire } from '@/core/measure';
import { type LayoutDocument, type Modules, saySensorInput, USUAL_MODULES } from '@/core/survey';
import { straighten } from '@/core/track';
import { AskFirst } from '@/ui/parts/ask-first';
import { Caution } from '@/ui/parts/caution';
import { DataTable } from '@/ui/parts/data-table';
import { saveFile } from '@/ui/parts/save-file';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useWorkbenchStore } from '@/ui/state/store';
import { LabelSheet } from './label-sheet';

interface Row {
  id: string;
  input: string;
  name: string;
  kind: string;
  where: string;
  place: { line: string; at: number };
}
const COLUMN = createColumnHelper<Row>();
/** How each input is tested, in this order; common practice, no source. */
const TESTS = ['bare wire to ground', 'contact rail or feeder', 'a train'];

/** Which sensor is wired to which input of which module; grouped so that wires run short along the line. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: a table, column by column.
export function ModuleInputs({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const modules = document.modules ?? USUAL_MODULES;
  const rows = useMemo(() => rowsOf(document), [document]);
  const [labels, setLabels] = useState(false);
  const columns = useMemo(
    () => [
      COLUMN.accessor('input', {
        header: 'Input',
        cell: ({ getValue }) => getValue() || <span className="text-warn">none</span>,
      }),
      COLUMN.accessor('name', {
        header: 'Sensor',
        cell: ({ row: { original } }) => <SelectThing id={original.id}>{original.name}</SelectThing>,
      }),
      COLUMN.accessor('where', { header: 'Where' }),
    ],
    [],
  );
  if (rows.length === 0) return null;
  const without = document.sensors.filter(({ input }) => inputOf(input, modules) === undefined).length;
  const give = (next: Modules, anew: boolean) =>
    store.getState().edit({
      do: 'give inputs',
      modules: next,
      inputs: Object.fromEntries(giveInputs(document, straighten(document), next, anew).inputs),
    });
  const { wire } = giveInputs(document, straighten(document), modules);
  const used = new Set(document.sensors.map(({ input }) => inputOf(input, modules)?.module).filter(Boolean)).size;
  return (
    <PanelSection title="Module inputs">
      <p className="text-ink2">
        {without === rows.length
          ? 'No sensor has an input yet.'
          : `${rows.length - without} of ${rows.length} sensors on ${used} ${used === 1 ? 'module' : 'modules'}; from each sensor to the middle of its module, ${showWire(wire, document.shownUnit)} of wire along the line.`}
      </p>
      <div className="mt-2 flex gap-2">
        <NumberField
          key={`inputs ${modules.inputs}`}
          label="Inputs on each"
          value={modules.inputs}
          least={1}
          most={64}
          unit="inputs"
          digits={0}
          onCommit={(inputs) => give({ ...modules, inputs: Math.round(inputs) }, false)}
        />
        <NumberField
          key={`spare ${modules.spare}`}
          label="Of these kept free"
          value={modules.spare}
          least={0}
          most={Math.max(0, modules.inputs - 1)}
          unit="inputs"
          digits={0}
          onCommit={(spare) => give({ ...modules, spare: Math.round(spare) }, false)}
        />
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        {without > 0 && (
          <button type="button" className="button button-main" onClick={() => give(modules, false)}>
            {without === rows.length ? 'Give every sensor its input' : `Give the other ${without} theirs`}
          </button>
        )}
        {without < rows.length && (
          <AskFirst
            button="Share out anew …"
            title="Share all inputs out anew?"
            yes="Share them out"
            no="Leave them"
            onYes={() => give(modules, true)}
          >
            Every sensor gets the input with which wires run shortest. What is wired and labelled already would have to
            be moved: do this only before you wire.
          </AskFirst>
        )}
        <button type="button" className="button" onClick={() => save(document, rows)}>
          Save as CSV
        </button>
        {without < rows.length && (
          <button type="button" className="button" onClick={() => setLabels(true)}>
            Labels …
          </button>
        )}
        {labels && <LabelSheet labels={rows.filter(({ input }) => input)} onClose={() => setLabels(false)} />}
      </div>
      <div className="mt-2 max-h-72 overflow-auto">
        <DataTable
          label="Inputs and their sensors"
          rows={rows}
          columns={columns}
          rowId={({ id }) => id}
          onPoint={(row) => store.getState().set({ pointed: row?.place })}
        />
      </div>
      <p className="mt-2 text-ink2">
        Test each input on the bench before any rail is cut: first with {TESTS[0]}, then with the {TESTS[1]}, then with{' '}
        {TESTS[2]}. The file has a column for each.
      </p>
      <Caution work="wiring" />
    </PanelSection>
  );
}

function rowsOf(document: LayoutDocument): Row[] {
  const lines = new Map(document.lines.map(({ id, name }) => [id, name]));
  const rows = document.sensors.map(({ id, input, name, kind, anchor: { line, at } }) => ({
    id,
    input: saySensorInput(input),
    name,
    kind: sensorKind(kind).title,
    where: `${lines.get(line)}, ${showLength(at.tenthUm, document.shownUnit)}`,
    place: { line, at: at.tenthUm },
  }));
  const order = new Intl.Collator('en', { numeric: true });
  return rows.sort((a, b) => order.compare(a.input, b.input) || order.compare(a.name, b.name));
}

/** As comma-separated values (RFC 4180), with a column for each test on the bench. */
async function save(document: LayoutDocument, rows: readonly Row[]): Promise<void> {
  const { default: Papa } = await import('papaparse');
  const titles = ['Input', 'Sensor', 'Kind', 'Where', ...TESTS.map((test) => `Tested with ${test}`)];
  const lines = rows.map(({ input, name, kind, where }) => [input, name, kind, where, ...TESTS.map(() => '')]);
  saveFile(`${document.name} inputs.csv`, `${Papa.unparse([titles, ...lines])}\r\n`, 'text/csv');
}
