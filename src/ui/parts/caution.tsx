import { TriangleAlert } from 'lucide-react';

/** The usual cautions beside work that can hurt someone; common practice, no source. */
const CAUTIONS = {
  cutting: 'Before you cut: power off, eyes protected. A cutting disc can shatter; keep to its maker’s instructions.',
  wiring:
    'Switch the layout off before you change its wiring. Soldering irons burn and fumes want air. Leave anything at mains voltage to licensed people and local codes.',
  supplies:
    'Never join two supplies or two boosters in one section. Fuse each for its wire; follow its maker’s instructions and local codes.',
} as const;

export function Caution({ work }: { work: keyof typeof CAUTIONS }) {
  return (
    <p className="mt-2 flex gap-2 rounded-md bg-warn-tint px-2 py-1.5 text-warn">
      <TriangleAlert size={15} aria-hidden className="mt-0.5 shrink-0" />
      {CAUTIONS[work]}
    </p>
  );
}
