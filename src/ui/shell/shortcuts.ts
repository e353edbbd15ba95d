import { STAGES } from '@/ui/stages';

/** Every key, as it is listed for people. “letter” keys act on the sheet only and can be switched off. */
export const SHORTCUTS: { title: string; letters: boolean; keys: [string, string][] }[] = [
  {
    title: 'Everywhere',
    letters: false,
    keys: [
      ['Ctrl Z', 'undo'],
      ['Ctrl Shift Z', 'redo'],
      ['Ctrl K', 'find a thing or a command'],
      ['?', 'this list, wherever you are not typing'],
      ['F6', 'go to the next part of the window; with Shift, to the one before'],
    ],
  },
  {
    title: 'On the sheet',
    letters: false,
    keys: [
      ['+  −  0', 'zoom in, zoom out, fit the whole layout'],
      ['←  →', 'move along the line; on a gap, move the gap by 1 cm or 1/2" (Shift 10 cm or 4", Alt 1 mm or 1/16")'],
      ['Home  End', 'go to the beginning or the end of the line'],
      ['Tab', 'go to the next thing along the line; with Shift, to the one before'],
      [
        'Enter',
        'select; with Shift, measure to it from what is selected; with Ctrl, choose it together with the others',
      ],
      ['Esc', 'let go, and back to the sheet'],
    ],
  },
  {
    title: 'Single letters on the sheet',
    letters: true,
    keys: [
      ['[  ]', 'previous, next block'],
      ['N', 'next finding'],
      ['F', 'open or close the findings'],
      ['T', 'throw the selected turnout'],
      ['U', 'centimetres or inches'],
      ['L', 'light or dark'],
      ['/', 'find a thing or a command'],
      ...STAGES.flatMap(({ letters = [] }) => letters),
    ],
  },
];

const KEEP = 'roblik-single-letters';

/** Whether single letters act; remembered by this browser. */
export const lettersAreOn = (): boolean => localStorage.getItem(KEEP) !== 'off';
export const rememberLetters = (on: boolean): void => localStorage.setItem(KEEP, on ? 'on' : 'off');
