import { asItWas, thingOf } from './draft';
import { named } from './free-names';
import { LISTS } from './lists';
import type { Area } from './lists/areas';
import type { Movement } from './lists/movements';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { LayoutDocument, Prices } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** What can be decided about who runs where, and what is protected. */
export type TrafficEdit =
  | { do: 'add area'; area: Omit<Area, 'id'> }
  | { do: 'change area'; id: string; change: Partial<Omit<Area, 'id'>> }
  | { do: 'run by'; people: number }
  | { do: 'add movement'; movement: Omit<Movement, 'id'> }
  | { do: 'change movement'; id: string; change: Partial<Omit<Movement, 'id'>> }
  | { do: 'price'; prices: Prices }
  | { do: 'pay in'; money: string | undefined }
  /** New names of signals, by id, all at once. */
  | { do: 'number signals'; names: Readonly<Record<string, string>> }
  /** New names of lines, by id, all at once. */
  | { do: 'number tracks'; names: Readonly<Record<string, string>> };

/** Does it to the draft; what was done, in words. */
export function editTraffic(document: LayoutDocument, edit: TrafficEdit): string {
  switch (edit.do) {
    case 'add area': {
      const name = named(edit.area.name, LONGEST_NAME.track, 'An area needs a name.');
      document.areas.push({ ...edit.area, name, id: freshId(asItWas(document), LISTS.areas.prefix) });
      return `Add area ${name}`;
    }
    case 'change area': {
      const area = thingOf(document, 'areas', edit.id) ?? refuse('That area is no longer there.');
      Object.assign(area, edit.change);
      area.name = named(area.name, LONGEST_NAME.track, 'An area needs a name.');
      return `Change area ${area.name}`;
    }
    case 'run by':
      document.people = edit.people;
      return edit.people === 1 ? 'Let one person run it' : `Let ${edit.people} people run it`;
    case 'add movement':
    case 'change movement': {
      const from = edit.do === 'add movement' ? edit.movement : edit.change;
      for (const end of [from.from, from.to])
        if (end !== undefined) named(end, LONGEST_NAME.track, 'Say from where and to where.');
      if (edit.do === 'add movement')
        document.movements.push({ ...edit.movement, id: freshId(asItWas(document), LISTS.movements.prefix) });
      else
        Object.assign(
          thingOf(document, 'movements', edit.id) ?? refuse('That movement is no longer there.'),
          edit.change,
        );
      return edit.do === 'add movement' ? 'Add a movement' : 'Change a movement';
    }
    case 'pay in':
      document.money = edit.money;
      return edit.money ? `Pay in ${edit.money}` : 'Pay in any money';
    case 'price':
      document.prices = edit.prices;
      return 'Change prices or the budget';
    case 'number signals': {
      const before = asItWas(document);
      const names = Object.values(edit.names);
      const others = [...before.turnouts, ...before.features, ...before.sensors, ...before.crossings].filter(
        (one) => !(one.id in edit.names),
      );
      const taken = others.find((one) => 'name' in one && names.includes(one.name));
      if (taken && 'name' in taken) refuse(`The name ${taken.name} is taken. Begin with another number.`);
      if (new Set(names).size < names.length) refuse('Two signals would get one name.');
      for (const id of Object.keys(edit.names)) {
        const signal = thingOf(document, 'features', id);
        if (signal?.kind !== 'signal') return refuse('Not all of them are there any more.');
        signal.name = named(edit.names[id]!, LONGEST_NAME.thing, 'Each signal needs a name.');
      }
      return `Number ${names.length} signals`;
    }
    case 'number tracks': {
      const names = Object.values(edit.names);
      const taken = asItWas(document).lines.find(({ id, name }) => !(id in edit.names) && names.includes(name));
      if (taken) refuse(`The name ${taken.name} is taken. Begin with another number.`);
      if (new Set(names).size < names.length) refuse('Two tracks would get one name.');
      for (const [id, name] of Object.entries(edit.names)) {
        const line = thingOf(document, 'lines', id) ?? refuse('Not all of them are there any more.');
        line.name = named(name, LONGEST_NAME.track, 'Each track needs a name.');
      }
      return `Number ${names.length} tracks`;
    }
  }
}
