import { holds } from '../core/conditions';
import { EVENT_KINDS, rulesFor, type Rule } from '../core/rules';
import { perSecond, report } from './report';

const RULES = 500;
const HAPPENINGS = 40_000;

const rules: Rule[] = Array.from({ length: RULES }, (_, i) => ({
  ...{ id: `r${i}`, order: i % 50, isOn: true, teamId: i % 3 === 0 ? 'desk' : null, isLast: false },
  trigger: { on: EVENT_KINDS[i % EVENT_KINDS.length]! },
  provided: {
    all: [
      { field: 'priority', op: 'is' as const, value: `P${(i % 4) + 1}` },
      // One in four asks for words.
      i % 4 === 0
        ? { field: 'title', op: 'hasAny' as const, value: ['card', `gate ${i}`] }
        : { field: 'serviceId', op: 'in' as const, value: ['kiosk', `s${i}`] },
    ],
  },
  effects: [{ do: 'set' as const, field: 'x', to: i }],
}));

const ticketOf = (i: number) => ({
  ...{ teamId: 'desk', priority: `P${(i % 4) + 1}`, serviceId: 'scanner' },
  title: `Gate ${i % 900} rejects season passes of the reader`,
});

function rateOf(work: (i: number) => void): number {
  for (let i = 0; i < 2_000; i++) work(i);
  const start = performance.now();
  for (let i = 0; i < HAPPENINGS; i++) work(i);
  return (HAPPENINGS * 1_000) / (performance.now() - start);
}

/** How many happenings a second rules are asked about, beside asking each condition in turn without any order. */
export async function benchRules(): Promise<void> {
  const rate = rateOf((i) => {
    const kind = EVENT_KINDS[i % EVENT_KINDS.length]!;
    rulesFor(rules, { entryId: `${i}`, kind, at: 0, changes: [], byRules: [] }, ticketOf(i));
  });
  const plain = rateOf((i) => {
    const ticket = ticketOf(i);
    for (const { provided } of rules) holds(provided, ticket);
  });
  report(`happenings, ${RULES} rules`, perSecond(rate));
  report('  every condition asked, whatever it hears of', perSecond(plain), `${(rate / plain).toFixed(1)} ×`);
  return Promise.resolve();
}
