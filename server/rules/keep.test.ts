import type { RuleBody, RuleView } from '../../contract/rules';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

/** Who may keep a rule, and what it may not say. */
let app: TestListo;
let [helder, bia, tomas]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('ruleRefusals');
  [helder, bia, tomas] = await Promise.all(['helder', 'bia', 'tomas'].map(app.as));
});
afterAll(() => app.end());

const both = (text: string) => ({ en: text, pt: text });
/** A rule that may be kept, but for what is given. */
const rule = (given: Partial<RuleBody>): RuleBody => ({
  ...{ name: both('A rule'), teamId: null, trigger: { on: 'received' }, provided: { all: [] } },
  ...{ effects: [{ do: 'note', words: both('Seen.') }], isLast: false },
  ...given,
});

async function make(): Promise<string> {
  const { body } = await helder!.call('POST', '/rules', rule({}));
  return (body as { id: string }).id;
}

test('without anything wrong it is kept', async () => {
  expect((await helder!.call('POST', '/rules', rule({}))).status).toBe(200);
});

test.each([
  [{ effects: [] }, 'rule', 'noEffect'],
  [{ name: both(' ') }, 'name', 'missing'],
  [{ effects: [{ do: 'give' as const, teamId: 'nowhere' }] }, 'effects.0.teamId', 'notAChoice'],
  [
    { effects: [{ do: 'room' as const, roomId: 'nowhere', words: both('x') }] },
    'effects.0.roomId',
    'notAChoice',
  ],
  [
    { provided: { field: 'assigneeId', op: 'is' as const, value: '@me' } },
    'provided.assigneeId',
    'wrongValue',
  ],
  [{ provided: { field: 'isLate', op: 'is' as const, value: true } }, 'provided.isLate', 'unknownField'],
  [{ trigger: { on: 'time' as const, every: 'FREQ=SECONDLY', zone: 'UTC' } }, 'rule', 'badTime'],
  [
    { trigger: { on: 'fieldChanged' as const, field: 'priority', from: 'P1', to: 'P1' } },
    'rule',
    'sameBeforeAndAfter',
  ],
])('a rule that says %j is refused, with where and why', async (given, field, code) => {
  const refused = await helder!.call('POST', '/rules', rule(given as Partial<RuleBody>));
  expect(refused.status).toBe(422);
  expect((refused.body as { fields: object[] }).fields).toEqual([{ field, code }]);
});

test('those who set up a team write its rules, and see those of others', async () => {
  const id = await make();
  expect((await tomas!.call('GET', '/rules')).status).toBe(403);
  const theirs = (await bia!.call('GET', '/rules')).body as RuleView[];
  expect(theirs.every(({ mayEdit }) => !mayEdit)).toBe(true);
  for (const [method, path, body] of [
    ['POST', '/rules', rule({})],
    ['PUT', `/rules/${id}`, { ...rule({}), version: 2 }],
    ['PUT', `/rules/${id}/state`, { version: 2, isOn: false }],
    ['DELETE', `/rules/${id}`, undefined],
    ['POST', '/rules/trials', { id: null, rule: rule({}), days: 30 }],
  ] as const)
    expect((await bia!.call(method, path, body)).status).toBe(403);
});

test('a stale change is refused with what stands there', async () => {
  const id = await make();
  const stale = await helder!.call('PUT', `/rules/${id}`, { ...rule({}), version: 7 });
  expect(stale.status).toBe(409);
});
