import { describe, expect, test } from 'vitest';
import { roomForTrains, viewDesign } from '@/core/design';
import { smallValley } from '@/demo/small-valley';

describe('which train fits where', () => {
  test('every block without points and every platform, by hand: its length less the train’s, the worst first', () => {
    const d = smallValley();
    const rooms = roomForTrains(d, viewDesign(d).blocks);
    expect(rooms.map(({ worst }) => worst)).toEqual([...rooms.map(({ worst }) => worst)].sort((a, b) => a - b));
    const cmOf = (tenthUm: number) => Math.round(tenthUm / 100_000);
    const named = Object.fromEntries(rooms.map(({ name, length, spare }) => [name, [length, ...spare].map(cmOf)]));
    /** Trains of 128, 93, 145 and 27 cm; lengths between gaps off the survey. */
    expect(named.UM).toEqual([170, 42, 77, 25, 143]);
    expect(named.SB).toEqual([124, -4, 31, -21, 97]);
    expect(named['Marrowick platform']).toEqual([120, -8, 27, -25, 93]);
    expect(named['Skerrin platform']).toEqual([92, -36, -1, -53, 65]);
    /** Loops and roads between clearance points, 20 cm each: 276 − 40, 262 − 40, 190 − 20; of Skerrin 2 what lies beyond T10, 150 − 44. */
    expect(named['Undercroft 1']![0]).toBe(236);
    expect(named['Marrowick 2']![0]).toBe(222);
    expect(named['Pell Dock']![0]).toBe(170);
    expect(named['Skerrin 2']![0]).toBe(106);
    expect(named['Skerrin branch']![0]).toBe(158);
    expect(named.Main).toBeUndefined();
    /** Nobody stands on points. */
    for (const points of ['UA', 'UB', 'MA', 'MB', 'FJ']) expect(named[points]).toBeUndefined();
    expect(roomForTrains({ ...d, trains: [] }, viewDesign(d).blocks)).toEqual([]);
  });
});
