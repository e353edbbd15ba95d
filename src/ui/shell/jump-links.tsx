'use client';

const PARTS: [string, string][] = [
  ['The sheet', 'main svg[tabindex]'],
  ['The panel', 'aside'],
  ['The findings', 'footer'],
];
const FOCUSABLE = 'a[href], button:not(:disabled), input:not(:disabled), [tabindex="0"]';

/** The first stop of the Tab key: from here one goes straight to a part of the window. Seen only while it has the focus. */
export function JumpLinks() {
  const jump = (selector: string) => {
    const part = document.querySelector<HTMLElement>(selector);
    const target = part?.matches('[tabindex]') ? part : part?.querySelector<HTMLElement>(FOCUSABLE);
    target?.focus();
  };
  return (
    <section
      aria-label="Go straight to"
      className="sr-only focus-within:not-sr-only focus-within:absolute focus-within:left-2 focus-within:top-1 focus-within:z-30 focus-within:flex focus-within:gap-1 focus-within:rounded-md focus-within:border focus-within:border-edge focus-within:bg-raised focus-within:p-1 focus-within:shadow-lg"
    >
      {PARTS.map(([says, selector]) => (
        <button key={says} type="button" className="button" onClick={() => jump(selector)}>
          {says}
        </button>
      ))}
    </section>
  );
}
