import { describe, expect, test } from 'vitest';
import { cm, showMoney, showWire, wireSoldBy } from '@/core/measure';
import { readDocument } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { done } from './editing';

describe('money and wire', () => {
  test.each([
    [undefined, '12.5'],
    ['€', '€12.5'],
    ['US$', '12.5 US$'],
    ['$', '$12.5'],
    ['kr', '12.5 kr'],
  ])('in %s: %s', (money, shown) => expect(showMoney(12.5, money)).toBe(shown));
  test('wire in metres, or in feet where inches rule, as it is sold', () => {
    expect(showWire(cm(1219.2).tenthUm, 'cm')).toBe('12.2 m');
    expect(showWire(cm(1219.2).tenthUm, 'inch')).toBe('40 ft');
    expect(wireSoldBy('cm')).toEqual({ one: 'metre', ofMetre: 1 });
    expect(wireSoldBy('inch').ofMetre).toBeCloseTo(0.3048, 12);
  });
  test('what somebody pays in is kept with the layout, and left out again', () => {
    const d = done(learningOval(), { do: 'pay in', money: 'kr' });
    expect(d.says).toBe('Pay in kr');
    expect(readDocument(JSON.parse(JSON.stringify(d.document)))).toMatchObject({ ok: true, document: { money: 'kr' } });
    const none = done(d.document, { do: 'pay in', money: undefined });
    expect(none.document.money).toBeUndefined();
    expect(readDocument({ ...learningOval(), money: 'far too long' })).toMatchObject({ ok: false });
  });
});
