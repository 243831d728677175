import fc from 'fast-check';
import { holds, type Condition } from './index';

const fields = {
  priority: 'P2',
  age: 3,
  team: null,
  labels: ['Rush', 'gate'],
  title: 'Kiosk FROZEN',
  open: true,
};

test.each<[Condition, boolean]>([
  [{ all: [] }, true],
  [{ any: [] }, false],
  [{ not: { all: [] } }, false],
  [{ field: 'priority', op: 'is', value: 'P2' }, true],
  [{ field: 'age', op: 'is', value: '3' }, false],
  [{ field: 'open', op: 'is', value: true }, true],
  [{ field: 'nowhere', op: 'is', value: null }, true],
  [{ field: 'constructor', op: 'is', value: null }, true],
  [{ field: 'team', op: 'isNot', value: 'network' }, true],
  [{ field: 'team', op: 'isNot', value: null }, false],
  [{ field: 'team', op: 'in', value: ['network', null] }, true],
  [{ field: 'team', op: 'notIn', value: ['network'] }, true],
  [{ field: 'team', op: 'notIn', value: [null] }, false],
  [{ field: 'labels', op: 'is', value: 'Rush' }, false],
  [{ field: 'labels', op: 'isNot', value: 'Rush' }, true],
  [{ field: 'age', op: 'lt', value: 4 }, true],
  [{ field: 'age', op: 'lte', value: 3 }, true],
  [{ field: 'age', op: 'gt', value: '1' }, false],
  [{ field: 'team', op: 'gte', value: 0 }, false],
  [{ field: 'priority', op: 'gt', value: 'P1' }, true],
  [{ field: 'title', op: 'lt', value: 'kiosk' }, true],
  [{ field: 'title', op: 'contains', value: 'frozen' }, true],
  [{ field: 'labels', op: 'contains', value: 'rush' }, false],
  [{ field: 'labels', op: 'contains', value: 'Rush' }, true],
  [{ field: 'age', op: 'contains', value: '3' }, false],
  [{ field: 'team', op: 'empty' }, true],
  [{ field: 'labels', op: 'notEmpty' }, true],
  [{ field: 'age', op: 'empty' }, false],
])('%j is %p', (condition, expected) => expect(holds(condition, fields)).toBe(expected));

test('negation swaps all and any (De Morgan)', () => {
  const { leaf } = fc.letrec<{ leaf: Condition }>(() => ({
    leaf: fc.oneof(
      fc.record({
        field: fc.constantFrom('a', 'b'),
        op: fc.constant('is' as const),
        value: fc.integer({ max: 2, min: 0 }),
      }),
      fc.record({ field: fc.constantFrom('a', 'b'), op: fc.constant('empty' as const) }),
    ),
  }));
  const values = fc.dictionary(fc.constantFrom('a', 'b'), fc.constantFrom(0, 1, 2, null));
  fc.assert(
    fc.property(fc.array(leaf), values, (parts, given) => {
      const negated = holds({ not: { all: parts } }, given);
      expect(negated).toBe(holds({ any: parts.map((not) => ({ not })) }, given));
    }),
  );
});
