import fc from 'fast-check';
import {
  guessThingMapping,
  readAmount,
  readDay,
  readThingRow,
  type ThingField,
  type ThingLookups,
} from './index';

const HEADINGS =
  'Type;Name;Inventory number;Serial number;User;Site;Price;Purchase date;Status;Depends on'.split(';');
const mapping = guessThingMapping(HEADINGS);
const lookups: ThingLookups = {
  kind: (words) => (words === 'Laptop' ? 'laptop' : null),
  site: (words) => (words === 'Port Alder' ? 'alder' : null),
  team: () => null,
  person: (words) => (words === 'tomas@x.example' ? { id: 'tomas' } : words === 'Ana' ? 'several' : 'nobody'),
  timesOf: (field, mark) => (mark === 'SN-2' ? 300 : mark === '' ? 0 : 1),
  of: (by, mark) =>
    by === 'serial' && mark === 'SN-1' ? ['one'] : by === 'tag' && mark === 'T-9' ? ['a', 'b'] : [],
};
const read = (row: string) => readThingRow(row.split(';'), mapping, lookups);

test('columns are guessed by their headings; a row is what it says, new or here already', () => {
  expect(Object.keys(mapping).sort()).toEqual(
    (
      [
        'boughtOn',
        'cost',
        'holder',
        'kind',
        'name',
        'needs',
        'serial',
        'site',
        'state',
        'tag',
      ] as ThingField[]
    ).sort(),
  );
  const row =
    'Laptop;Laptop 7;L-7;sn-1;tomas@x.example;Port Alder;1.249,00 €;31/1/2026;Em uso;Line 1 | Server A1';
  expect(read(row)).toEqual({
    problems: [],
    thing: {
      ...{ id: 'one', kindId: 'laptop', name: 'Laptop 7', tag: 'L-7', serial: 'sn-1', holderId: 'tomas' },
      ...{ siteId: 'alder', cost: 124_900, boughtOn: '2026-01-31', state: 'inUse' },
      needs: ['Line 1', 'Server A1'],
    },
  });
  expect(read('Laptop;Other;;;;;;;;').thing).toEqual({ id: null, kindId: 'laptop', name: 'Other' });
});

test.each([
  [';;;;;;;;;', 'kind missing,name missing'],
  ['Kettle;K;;;;;;;;', 'kind unknownKind'],
  ['Laptop;A;;SN-2;;;;;;', 'serial repeated'],
  ['Laptop;A;T-9;;;;;;;', 'tag severalThings'],
  ['Laptop;A;;;Ana;;;;;', 'holder severalPeople'],
  ['Laptop;A;;;Nemo;Nowhere;;;;', 'holder unknownPerson,site unknownSite'],
  ['Laptop;A;;;;;much;31.2.2026;broken;', 'cost notAnAmount,boughtOn notADate,state wrongValue'],
  [`Laptop;${'x'.repeat(121)};;;;;;;;`, 'name tooLong'],
])('%s is told: %s', (row, wanted) => {
  expect(
    read(row)
      .problems.map(({ field, code }) => `${field} ${code}`)
      .join(),
  ).toBe(wanted);
});

test.each([
  ['1249', 124_900],
  ['1,249.00', 124_900],
  ['1 249,5', 124_950],
  ['EUR 1.249', 124_900],
  ['12,49', 1_249],
  ['1.2.3', null],
  ['-5', null],
  ['', null],
])('the amount “%s” is %p', (words, cents) => {
  expect(readAmount(words)).toBe(cents);
});

test('law: an amount is read back however a locale writes it; a day too', () => {
  fc.assert(
    fc.property(
      fc.nat(1_000_000_000),
      fc.constantFrom('en-GB', 'de-DE', 'pt-PT', 'fr-FR'),
      (cents, locale) => {
        const written = new Intl.NumberFormat(locale, { style: 'currency', currency: 'EUR' }).format(
          cents / 100,
        );
        expect(readAmount(written)).toBe(cents);
      },
    ),
  );
  fc.assert(
    fc.property(
      fc.date({ min: new Date('1990-01-01'), max: new Date('2060-01-01'), noInvalidDate: true }),
      (date) => {
        const iso = date.toISOString().slice(0, 10);
        const [y, m, d] = iso.split('-');
        for (const words of [iso, `${d}/${m}/${y}`, `${Number(d)}.${Number(m)}.${y}`, `${iso}T00:00:00.000Z`])
          expect(readDay(words)).toBe(iso);
      },
    ),
  );
});
