import fc from 'fast-check';
import { checkChart, FACT_KINDS, showsFor, type Chart } from '../../../core/measures';
import { figureChart } from '../../testing/figures';
import {
  fromAim,
  listAskable,
  listReckoned,
  listWhats,
  newChart,
  toAim,
  whatName,
  WHATS,
  withFacts,
  withPart,
  withWhat,
} from './edit';
import { SHARES, shareName } from './shares';
import { STRETCHES, toStretch } from './stretches';
import { readChosen, toggled } from './useChosen';

test('a new chart can be drawn at once', () => {
  expect(checkChart(newChart())).toEqual([]);
  expect(newChart().id).not.toBe(newChart().id);
});

test('whatever is chosen in whichever order, the chart can be drawn', () => {
  const step = fc.oneof(
    fc.constantFrom(...FACT_KINDS).map((of) => (chart: Chart) => withFacts(chart, of)),
    fc
      .constantFrom(...WHATS)
      .map((name) => (chart: Chart) => (listWhats(chart.of).includes(name) ? withWhat(chart, name) : chart)),
    fc
      .constantFrom(null, 'hour', 'week')
      .map((every) => (chart: Chart) => withPart(chart, { every: every as Chart['every'] })),
    fc
      .constantFrom(null, 'teamId')
      .map(
        (by) => (chart: Chart) =>
          by === null || listAskable(chart.of).includes(by as 'teamId') ? withPart(chart, { by }) : chart,
      ),
    fc
      .nat(8)
      .map((i) => (chart: Chart) => withPart(chart, { show: showsFor(chart)[i % showsFor(chart).length]! })),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      const chart = steps.reduce((before, change) => change(before), newChart());
      expect(checkChart(chart)).toEqual([]);
    }),
  );
});

test('a chart of other facts leaves behind what those do not have', () => {
  const chart = figureChart('bars', {
    by: 'priority',
    what: { median: 'workToDone' },
    where: { field: 'kind', op: 'in', value: ['incident'] },
  });
  expect(withFacts(chart, 'conversations')).toMatchObject({
    by: null,
    what: 'count',
    at: 'began',
    where: { all: [] },
    show: 'number',
  });
  expect(withFacts(chart, 'approvals')).toMatchObject({ by: 'priority', what: 'count' });
});

test('of facts without lengths and amounts one can only say how many, or a share', () => {
  expect(listReckoned('articles')).toEqual([]);
  expect(listWhats('articles')).toEqual(['count', 'share']);
  expect(whatName({ what: { p90: 'toDone' } })).toBe('p90');
});

test('shares that are offered are of what there is, and known again', () => {
  for (const of of FACT_KINDS)
    for (const [name, share] of Object.entries(SHARES[of] ?? {})) {
      expect(checkChart(figureChart('number', { what: { share } }, of))).toEqual([]);
      expect(shareName(of, share)).toBe(name);
    }
  expect(shareName('tickets', { all: [] })).toBeNull();
});

test.each([
  ['4', true, 4 * 3_600_000],
  ['1,5', true, 5_400_000],
  ['90', false, 90],
  ['', false, null],
  ['soon', true, null],
])('an aim typed as "%s" (length: %s) is %d', (text, isLength, aim) => {
  expect(toAim(text, isLength)).toBe(aim);
  if (aim !== null) expect(toAim(fromAim(figureChart('number', { aim }), isLength), isLength)).toBe(aim);
});

test('stretches stand in the address as they are read from it', () => {
  for (const stretch of STRETCHES) expect(toStretch(`${stretch.last} ${stretch.unit}`)).toEqual(stretch);
  for (const text of [null, '', '12', '12 moons', '-1 day', '99999 day']) expect(toStretch(text)).toBeNull();
});

describe('what is chosen', () => {
  test('is chosen and taken back', () => {
    const one = toggled({}, 'c1', 'desk');
    const two = toggled(one, 'c1', null);
    expect(two).toEqual({ c1: ['desk', null] });
    expect(toggled(toggled(two, 'c1', 'desk'), 'c1', null)).toEqual({});
  });

  test.each([
    ['{"c1":["desk",null]}', { c1: ['desk', null] }],
    ['{"c1":"desk"}', {}],
    ['{"c1":[{"a":1}],"c2":[true]}', { c2: [true] }],
    ['[]', {}],
    ['null', {}],
    ['{', {}],
    [null, {}],
  ])('is read from an address: %s', (text, chosen) => {
    expect(readChosen(text)).toEqual(chosen);
  });
});
