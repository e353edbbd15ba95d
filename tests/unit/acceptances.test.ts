import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { isOpen } from '@/core/findings';
import { applyEdit, type Edit, type LayoutDocument, migrateDocument, readDocument } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';

const layout = exampleLayout(EXAMPLES.find(({ name }) => name === 'Two tracks, one crossover')!);
/** A turnout without a detector near it, over which trains run. */
function unwatched(): LayoutDocument {
  const d = structuredClone(layout);
  d.features = d.features.filter(({ kind }) => kind !== 'signal');
  return d;
}
const findings = (d: LayoutDocument) => checkDesign(d).findings;
const done = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
const open = findings(unwatched()).find(isOpen)!;
const WHY = 'A person stands beside it';
const accepted = () =>
  done(unwatched(), { do: 'accept', finding: open.id, severity: open.severity, says: open.says, why: `  ${WHY} ` });

describe('a finding that somebody lives with', () => {
  test('says why, asks for nothing any more, and stands behind those that do', () => {
    const after = findings(accepted());
    const own = after.find(({ id }) => id === open.id)!;
    expect([own.accepted, own.severity, isOpen(own)]).toEqual([WHY, open.severity, false]);
    expect(after.slice(after.indexOf(own)).some(isOpen)).toBe(false);
    expect(after.map(({ id }) => id).sort()).toEqual(
      findings(unwatched())
        .map(({ id }) => id)
        .sort(),
    );
  });
  test('counts again once it is graver, once it is accepted no longer, and once a reason is missing', () => {
    const d = accepted();
    const [acceptance] = d.acceptances;
    const milder = { ...d, acceptances: [{ ...acceptance!, severity: 'check' as const }] };
    const isStill = findings(milder).find(({ id }) => id === open.id)!.accepted !== undefined;
    expect(isStill).toBe(open.severity === 'check');
    expect(findings(done(d, { do: 'accept no longer', finding: open.id })).find(({ id }) => id === open.id)).toEqual(
      open,
    );
    const blank = applyEdit(unwatched(), {
      do: 'accept',
      finding: open.id,
      severity: open.severity,
      says: open.says,
      why: ' ',
    });
    expect(blank).toEqual({ ok: false, problem: 'Write why it may stay as it is.' });
    const long = applyEdit(unwatched(), {
      do: 'accept',
      finding: open.id,
      severity: open.severity,
      says: open.says,
      why: 'x'.repeat(301),
    });
    expect(long.ok).toBe(false);
    expect(applyEdit(unwatched(), { do: 'accept no longer', finding: open.id }).ok).toBe(false);
  });
  test('says what it said then, where it says something else now', () => {
    const [acceptance] = accepted().acceptances;
    const shown = (said: string) =>
      findings({ ...unwatched(), acceptances: [{ ...acceptance!, said }] }).find(({ id }) => id === open.id)!.saidThen;
    expect([shown(open.says), shown('Ten trains can meet.')]).toEqual([undefined, 'Ten trains can meet.']);
  });
  test('accepted again it has the new reason alone, and a note is not accepted', () => {
    const d = done(accepted(), {
      do: 'accept',
      finding: open.id,
      severity: open.severity,
      says: open.says,
      why: 'Another',
    });
    expect(d.acceptances.map(({ why }) => why)).toEqual(['Another']);
    expect(applyEdit(d, { do: 'accept', finding: open.id, severity: 'note', says: open.says, why: WHY }).ok).toBe(
      false,
    );
  });
  test('what it is about goes, and so does the accepting: a new thing with the same id is not accepted', () => {
    const d = unwatched();
    const { id } = d.turnouts[0]!;
    const about = done(d, {
      do: 'accept',
      finding: `held-by-nothing ${id}`,
      severity: 'unsafe',
      says: 'It moves.',
      why: WHY,
    });
    expect(about.acceptances.length).toBe(1);
    expect(done(about, { do: 'delete', id }).acceptances).toEqual([]);
  });
  test('older documents have none; twice the same one is told', () => {
    const { acceptances: _, ...older } = structuredClone(unwatched()) as LayoutDocument & Record<string, unknown>;
    expect(migrateDocument({ ...older, version: 7 }).acceptances).toEqual([]);
    const d = accepted();
    const twice = { ...d, acceptances: [d.acceptances[0]!, { ...d.acceptances[0]!, id: 'ac9' }] };
    const reading = readDocument(JSON.parse(JSON.stringify(twice)));
    expect(reading.ok ? [] : reading.faults.map(({ problem }) => problem)).toEqual([`${open.id} is accepted twice.`]);
  });
});
