import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../../contract';
import { ruleBodySchema, type RuleTrial, type RuleView } from '../../../contract/rules';
import { checkProvided, checkRule, type Effect } from '../../../core/rules';
import { refuse, standIn } from '../../testing/server';
import { BIA, show } from '../../testing/show';
import { teamOf } from '../../testing/team';
import { EMPTY_RULE, READY_RULES } from './readyRules';
import { readRecurrence, readSpan, RHYTHMS, toRecurrence, toSpan } from './rhythm';
import { hearsTargets, isAboutService, RulesAbout } from './RulesAbout';
import { RulesPage } from './RulesPage';

/** The pages on which rules are written, tried, put in order and switched on. */
const server = standIn();
const HELDER = { ...BIA, id: 'helder', isAdministrator: true, areas: [...BIA.areas, 'workshop' as const] };
const both = (text: string) => ({ en: text, pt: text });
const ruleOf = (id: string, given: Partial<RuleView> = {}): RuleView => ({
  ...{ ...EMPTY_RULE, id, name: both(id), effects: [{ do: 'note', words: both('Seen.') }] },
  ...{ owner: null, isOn: true, version: 3, mayEdit: true, failures: 0, failedAt: null, failedWith: null },
  ...{ fired: 0, lastAt: null, rings: [] },
  ...given,
});
const TEAMS = [teamOf('desk', 'Service desk', []), teamOf('network', 'Network', [])];

beforeEach(() => {
  localStorage.clear();
  server().on(api.people.teams, TEAMS).on(api.teams.sites, []).on(api.catalogue.list, []);
  server().on(api.chat.rooms, []).on(api.calendars.list, []).on(api.people.search, []);
});

async function open(rules: RuleView[], address = '/workshop/rules', language: 'en' | 'pt' = 'en') {
  server().on(api.rules.list, rules);
  await show(
    <Routes>
      <Route path="workshop/rules/:id?" element={<RulesPage />} />
    </Routes>,
    { me: HELDER, language, address },
  );
}
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));
const choose = (label: string, value: string): boolean =>
  fireEvent.change(screen.getByRole('combobox', { name: label }), { target: { value } });
const fill = (label: string, value: string): boolean =>
  fireEvent.change(screen.getByRole('textbox', { name: label }), { target: { value } });

test('each rule reads as a sentence, with how often it fired and what keeps it from doing what it says', async () => {
  const first = ruleOf('Cards', {
    trigger: { on: 'received' },
    provided: { all: [{ field: 'title', op: 'hasAny', value: ['card', 'pass'] }] },
    effects: [
      { do: 'give', teamId: 'network' },
      { do: 'set', field: 'priority', to: 'P1' },
    ],
    fired: 12,
    isLast: true,
  });
  const second = ruleOf('Broken', {
    isOn: false,
    failures: 20,
    failedWith: 'moveNotAllowed',
    rings: [['Broken', 'Cards']],
  });
  await open([first, second]);
  expect(
    await screen.findByText(
      'As soon as it has come, provided Title has any of the words card or pass: give it to Network, set Priority to P1. No later rule is asked.',
    ),
  ).toBeTruthy();
  expect(screen.getByText('fired 12 times in 30 days')).toBeTruthy();
  expect(screen.getByText(/Could not do something 20 times in a row: That is not possible/)).toBeTruthy();
  expect(screen.getByText(/Goes round with Cards/)).toBeTruthy();
});

test('silence and times are said in words, in Portuguese too', async () => {
  const silent = ruleOf('silence', {
    ...READY_RULES.ask,
    trigger: READY_RULES.ask.trigger,
  });
  const weekly = ruleOf('Segundas', READY_RULES.supplier);
  await open([silent, weekly], '/workshop/rules', 'pt');
  expect(await screen.findByText(/^Quando passaram 3 dias desde que fica à espera, se/)).toBeTruthy();
  expect(screen.getByText(/^Todas as segundas às 09:00, em cada pedido aberto, se/)).toBeTruthy();
});

test('a rule is switched off and on again by the way back', async () => {
  const rule = ruleOf('Cards');
  server().on(api.rules.switch, ({ body }) => ({ version: body.version + 1 }));
  await open([rule]);
  fireEvent.click(await screen.findByRole('switch', { name: 'Rule “Cards” in use' }));
  expect(await screen.findByText('“Cards” is switched off.')).toBeTruthy();
  press('Undo');
  await waitFor(() =>
    expect(
      server()
        .callsOf(api.rules.switch)
        .map(({ body }) => body),
    ).toEqual([
      { version: 3, isOn: false },
      { version: 4, isOn: true },
    ]),
  );
});

test('another order is kept only after it is said what it would have made otherwise', async () => {
  const [first, second] = [ruleOf('First'), ruleOf('Second')];
  server().on(api.rules.orderEffect, {
    ...{ otherwise: 4, entries: 900, more: [{ id: 'Second', name: both('Second'), count: 4 }], fewer: [] },
  });
  server().on(api.rules.order, { ok: true });
  await open([first, second]);
  const names = () =>
    screen.getAllByRole('link', { name: /^(First|Second)$/ }).map(({ textContent }) => textContent);
  const grip = await screen.findByRole('button', { name: 'Move “First”' });
  // jsdom lays nothing out: each row is given a place, so that one can be moved past the other.
  screen.getAllByRole('listitem').forEach((row, i) => {
    row.getBoundingClientRect = () => new DOMRect(0, i * 50, 500, 50);
  });
  grip.focus();
  fireEvent.keyDown(grip, { code: 'Space' });
  await waitFor(() => expect(grip.getAttribute('aria-pressed')).toBe('true'));
  fireEvent.keyDown(document, { code: 'ArrowDown' });
  await screen.findByText(/2/, { selector: '[aria-live] *, [aria-live]' });
  fireEvent.keyDown(document, { code: 'Space' });
  expect(await screen.findByText(/4 things would have gone otherwise, of 900 entries/)).toBeTruthy();
  expect(screen.getByText(/“Second” would have fired 4 times more/)).toBeTruthy();
  expect(names()).toEqual(['Second', 'First']);
  expect(server().callsOf(api.rules.order)).toHaveLength(0);
  press('Leave it as it was');
  expect(names()).toEqual(['First', 'Second']);
});

test('a new rule is written as a sentence; what is missing is said before it is sent, and nothing is lost by a reload', async () => {
  server().on(api.rules.create, { id: 'made' });
  await open([], '/workshop/rules/new');
  fireEvent.change(await screen.findByRole('textbox', { name: 'Name, en' }), { target: { value: 'Urgent' } });
  choose('What happens', 'fieldChanged');
  choose('Fact', 'priority');
  choose('to', 'P1');
  press('And then …');
  fireEvent.click(await screen.findByRole('menuitem', { name: 'note for the team' }));
  expect(await screen.findByText('Some words are missing.')).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
  fill('Words, en', 'Look at {number}');
  await open([], '/workshop/rules/new');
  expect((await screen.findByRole<HTMLTextAreaElement>('textbox', { name: 'Words, en' })).value).toBe(
    'Look at {number}',
  );
  press('Save');
  await waitFor(() => expect(server().callsOf(api.rules.create)).toHaveLength(1));
  expect(server().callsOf(api.rules.create)[0]!.body).toMatchObject({
    ...{ name: { en: 'Urgent', pt: '' }, teamId: null },
    trigger: { on: 'fieldChanged', field: 'priority', to: 'P1' },
    effects: [{ do: 'note', words: { en: 'Look at {number}', pt: '' } }],
  });
});

test('what the server refuses is said, and what was written stays', async () => {
  const rule = ruleOf('Cards');
  server().on(api.rules.update, refuse(409, 'stale'));
  await open([rule], '/workshop/rules/Cards');
  fireEvent.change(await screen.findByRole('textbox', { name: 'Words, en' }), { target: { value: 'Mine' } });
  press('Save');
  expect(await screen.findByRole('alert')).toBeTruthy();
  expect(screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Words, en' }).value).toBe('Mine');
});

test('a trial says on which tickets it would have fired and what else would have changed', async () => {
  const trial: RuleTrial = {
    ...{ entries: 4_200, isCut: false, count: 3, tickets: 2 },
    fired: [{ number: 1204, title: 'Card reader', at: 1, effects: [{ do: 'note', words: both('Seen.') }] }],
    more: [{ id: 'b', name: both('Tell the lead'), count: 2 }],
    ...{ fewer: [], before: [{ id: 'b', name: both('Tell the lead') }], after: [] },
  };
  server().on(api.rules.trial, trial);
  await open([ruleOf('Cards')], '/workshop/rules/Cards');
  const panel = within(await screen.findByRole('region', { name: 'Try it' }));
  fireEvent.click(panel.getByRole('button', { name: 'Try it over 30 days' }));
  expect(await panel.findByText('It would have fired 3 times in 30 days on 2 tickets.')).toBeTruthy();
  expect(panel.getByRole('link', { name: /1204/ }).getAttribute('href')).toBe('/desk/everything/1204');
  expect(panel.getByText('“Tell the lead” would have fired 2 times more by it')).toBeTruthy();
  expect(server().callsOf(api.rules.trial)[0]!.body).toMatchObject({ id: 'Cards', days: 30 });
  fireEvent.change(screen.getByRole('textbox', { name: 'Words, en' }), { target: { value: 'Other' } });
  expect(panel.getByText('You have changed it since.')).toBeTruthy();
});

test('who may not change a rule reads it, and can neither save nor try it', async () => {
  await open([ruleOf('Cards', { mayEdit: false })], '/workshop/rules/Cards');
  expect(await screen.findByText('You may look at this. Someone who sets it up can change it.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  expect(screen.queryByRole('region', { name: 'Try it' })).toBeNull();
});

test('a target’s page and a service’s name the rules that have to do with them, with the way to each', async () => {
  const [late, kiosk] = [
    ruleOf('Late', { trigger: { on: 'late' } }),
    ruleOf('Kiosks', {
      provided: { not: { any: [{ all: [{ field: 'serviceId', op: 'in', value: ['kiosk'] }] }] } },
      isOn: false,
    }),
  ];
  server().on(api.rules.list, [late, kiosk]);
  const about = (what: 'target' | 'service', isAbout: (rule: RuleView) => boolean) =>
    show(<RulesAbout {...{ what, isAbout }} />, { me: HELDER });
  await about('target', hearsTargets);
  expect((await screen.findByRole('link', { name: 'Late' })).getAttribute('href')).toBe(
    '/workshop/rules/Late',
  );
  expect(screen.queryByRole('link', { name: 'Kiosks' })).toBeNull();
  await about('service', isAboutService('kiosk'));
  expect(await screen.findByRole('link', { name: 'Kiosks' })).toBeTruthy();
  expect(screen.getByText(/switched off/)).toBeTruthy();
  await about('service', isAboutService('other'));
  expect(await screen.findByText('No rule asks for this service.')).toBeTruthy();
});

test('with no rules yet, it says how to begin; one that is gone is not there', async () => {
  await open([]);
  expect(await screen.findByText(/There is no rule yet/)).toBeTruthy();
  await open([], '/workshop/rules/gone');
  expect(await screen.findByRole('heading', { level: 1 })).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
});

test.each(Object.entries(READY_RULES))(
  'the ready rule “%s” can be kept as it is, but for its team',
  (_, ready) => {
    const effects = (ready.effects as readonly { do: string }[]).map((effect) =>
      effect.do === 'give' ? { ...effect, teamId: 'desk' } : effect,
    );
    const rule = { ...EMPTY_RULE, ...ready, effects, name: both('Ready') };
    expect(ruleBodySchema.safeParse(rule).error).toBeUndefined();
    expect(checkRule({ ...rule, id: 'a', order: 1, isOn: true, effects: effects as Effect[] })).toEqual([]);
    expect(checkProvided(rule.provided as never)).toEqual([]);
  },
);

test('a rhythm and a span are read as they were written; what else is written stays as it is', () => {
  for (const rhythm of RHYTHMS)
    expect(readRecurrence(toRecurrence(rhythm, '09:30'))).toEqual({ rhythm, time: '09:30' });
  expect(readRecurrence('FREQ=HOURLY')).toBeNull();
  expect(readSpan(toSpan(36, 'H'))).toEqual({ amount: 36, unit: 'H' });
  expect(readSpan('PT90M')).toBeNull();
});
