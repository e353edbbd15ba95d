'use client';
import { useState } from 'react';
import type { Member } from '@/core/simulation';
import { Choice } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { TextField } from '@/ui/parts/text-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench } from '@/ui/state/store';
import type { RehearsalControls } from './use-rehearsal';
import { type Together, useWhoShares } from './use-shared-run';

/** Others run the layout along in their own browsers, each at a post: begun, joined, and who is where. */
export function RunTogether({ run: { together } }: { run: RehearsalControls }) {
  const { shared } = together;
  if (!shared)
    return (
      <Fold title="Run it together with others">
        <Joining together={together} />
      </Fold>
    );
  return (
    <PanelSection title="Run together">
      <ul aria-label="Who takes part" className="flex flex-wrap gap-x-3">
        {shared.members.map(({ id, name }) => (
          <li key={id} className={id === shared.me ? 'font-semibold' : ''}>
            {name}
            {id === shared.me && ' (you)'}
          </li>
        ))}
      </ul>
      <Posts together={together} me={shared.me} members={shared.members} />
      <button type="button" className="button mt-2" onClick={together.leave}>
        Leave the run
      </button>
    </PanelSection>
  );
}

const KEPT = 'roblik-name';

function Joining({ together }: { together: Together }) {
  const layout = useWorkbench((s) => s.id);
  const others = useWhoShares(layout, true);
  const [name, setName] = useState(() => localStorage.getItem(KEPT) ?? '');
  const go = (how: (name: string) => void) => {
    localStorage.setItem(KEPT, name.trim());
    how(name);
  };
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        {others === undefined
          ? 'The run is then on the server: whoever opens this layout in a browser of their own can join, and take a post. It begins anew.'
          : `${others.length === 0 ? 'Somebody' : new Intl.ListFormat('en').format(others)} ${others.length > 1 ? 'run' : 'runs'} this layout now.`}
      </p>
      <TextField label="Your name" value={name} maxLength={40} onChange={({ target }) => setName(target.value)} />
      <div>
        <button
          type="button"
          className="button button-main"
          onClick={() => go(others === undefined ? together.beginTogether : together.join)}
        >
          {others === undefined ? 'Begin a run together' : 'Join'}
        </button>
      </div>
    </div>
  );
}

/** Each post with who is there: taken, left, handed over. */
function Posts({ together, me, members }: { together: Together; me: string; members: readonly Member[] }) {
  const posts = useWorkbench((s) => s.design?.posts) ?? NONE;
  if (posts.length === 0) return <p className="mt-1 text-ink2">This layout has no operator post to take.</p>;
  const others = members.filter(({ id }) => id !== me);
  return (
    <ul aria-label="Posts" className="mt-2 flex flex-col gap-2">
      {posts.map(({ id, name }) => {
        const holder = members.find((one) => one.posts.includes(id));
        const man = (on: boolean) => together.tell({ command: { kind: 'man', post: id, on } });
        return (
          <li key={id}>
            <span className="font-semibold">{name}</span>:{' '}
            {holder === undefined ? 'nobody there' : holder.id === me ? 'you are there' : `${holder.name} is there`}
            <div className="mt-1 flex flex-wrap items-center gap-2">
              {holder === undefined && (
                <button type="button" className="button py-0.5" onClick={() => man(true)}>
                  Take the post of {name}
                </button>
              )}
              {holder?.id === me && (
                <button type="button" className="button py-0.5" onClick={() => man(false)}>
                  Leave the post of {name}
                </button>
              )}
              {holder?.id === me && others.length > 0 && (
                <Choice
                  label={`Hand the post of ${name} to`}
                  labelled="unseen"
                  placeholder="Hand it to …"
                  value={undefined}
                  options={others.map((one) => ({ value: one.id, says: one.name }))}
                  onChange={(to) => together.tell({ handOver: { post: id, to } })}
                />
              )}
            </div>
          </li>
        );
      })}
    </ul>
  );
}
const NONE: readonly { id: string; name: string }[] = [];
