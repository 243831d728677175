import fc from 'fast-check';
import { holds, simplify, type Condition } from './index';

const { condition } = fc.letrec<{ condition: Condition }>((tie) => {
  const parts = fc.array(tie('condition'), { maxLength: 3 });
  return {
    condition: fc.oneof(
      { maxDepth: 4 },
      fc.record({
        field: fc.constantFrom('a', 'b', 'c'),
        op: fc.constantFrom('is' as const, 'isNot' as const),
        value: fc.nat(2),
      }),
      fc.record({ all: parts }),
      fc.record({ any: parts }),
      fc.record({ not: tie('condition') }),
    ),
  };
});

test('what is left once some fields are known says the same of the rest, and asks for them no more', () => {
  fc.assert(
    fc.property(condition, fc.nat(2), fc.nat(2), fc.nat(2), (given, a, b, c) => {
      const left = simplify(given, { a });
      expect(holds(left, { a, b, c })).toBe(holds(given, { a, b, c }));
      expect(JSON.stringify(left)).not.toContain('"a"');
    }),
  );
});
