'use client';
import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Choice } from './choice';
import { IconButton } from './icon-button';

const SIZES = ['1', '1.25', '1.5'].map((size) => ({ value: size, says: `${Math.round(Number(size) * 100)} %` }));
const remember = (name: string, value: string) => {
  // biome-ignore lint/suspicious/noDocumentCookie: the cookie store has no support outside Chromium
  document.cookie = `${name}=${value}; path=/; max-age=31536000; samesite=strict`;
};

/** Switches between light and dark, and remembers it. */
export function toggleTheme(): void {
  const next = document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark';
  document.documentElement.dataset.theme = next;
  remember('theme', next);
  window.dispatchEvent(new Event('roblik-theme'));
}

export function ThemeSwitch() {
  const [dark, setDark] = useState(false);
  const [size, setSize] = useState<string>('1');
  useEffect(() => {
    const read = () => setDark(document.documentElement.dataset.theme === 'dark');
    read();
    setSize(document.documentElement.style.getPropertyValue('--size') || '1');
    window.addEventListener('roblik-theme', read);
    return () => window.removeEventListener('roblik-theme', read);
  }, []);
  const choose = (value: string) => {
    setSize(value);
    document.documentElement.style.setProperty('--size', value);
    remember('size', value);
    window.dispatchEvent(new Event('resize'));
  };
  return (
    <div className="flex items-center gap-1.5">
      <IconButton
        icon={dark ? Sun : Moon}
        name={dark ? 'Use the light theme' : 'Use the dark theme'}
        title={dark ? 'Light theme' : 'Dark theme'}
        onClick={toggleTheme}
      />
      <Choice label="Size of everything" labelled="unseen" value={size} options={SIZES} onChange={choose} />
    </div>
  );
}
