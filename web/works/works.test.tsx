import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../contract';
import type { Reckoned, Work, WorkCalendar, WorkCard, WorkTemplate } from '../../contract/works';
import type { Problem, ProblemCard, RecurringGroup } from '../../contract/problems';
import { now } from '../api/clock';
import { ProblemPage } from '../problems/ProblemPage';
import { ProblemsPage } from '../problems/ProblemsPage';
import { refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { both, KEEPER, ref } from '../testing/things';
import { BoardPage } from './BoardPage';
import { NewWorkPage } from './NewWorkPage';
import { WorkPage } from './WorkPage';
import { WorksPage } from './WorksPage';

/** Changes and problems as they are written, decided, moved and known. */
const server = standIn();
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));
const HOUR = 3_600_000;
const PERSON = { id: 'sten', name: 'Sten Moberg', goesFirst: false };
const FROM = Math.ceil(now() / HOUR) * HOUR + 48 * HOUR;

const reckoned = (given: Partial<Reckoned> = {}): Reckoned => ({
  ...{ down: [], downCount: 0, weakenedCount: 2, watched: [], people: 0, retired: [] },
  ...{
    past: { failed: 1, all: 4, low: 0.05, high: 0.7 },
    impact: 'medium',
    likelihood: 'high',
    risk: 'high',
  },
  clashes: [],
  ...given,
});
const card = (given: Partial<WorkCard> = {}): WorkCard => ({
  ...{
    number: 9,
    title: 'New switch',
    sort: 'normal',
    stage: 'planned',
    fromAt: FROM,
    toAt: FROM + 2 * HOUR,
  },
  ...{
    startedAt: null,
    endedAt: null,
    risk: 'high',
    teamId: 'network',
    team: both('Network'),
    thingIds: ['a'],
  },
  ...{ requester: PERSON, mayMove: true, version: 3 },
  ...given,
});
const work = (given: Partial<Work> = {}): Work => ({
  ...{ ...card(), why: 'Old', test: 'Ping', takeBack: 'Old one back', problemNumber: null, riskSaid: null },
  ...{
    riskReason: '',
    things: [ref('a')],
    service: { id: 's', title: both('Work on a line') },
    isStandard: false,
  },
  ...{
    submittedAt: 1,
    outcome: null,
    review: '',
    reviewedAt: null,
    needsReview: false,
    acts: ['change', 'start'],
  },
  ...{ reckoned: reckoned(), problem: null, notices: [] },
  ...given,
});
const TOGETHER = {
  ...{ kind: 'together' as const, from: FROM, to: FROM + HOUR, things: [ref('Tills')], freeze: null },
  works: [
    { number: 9, title: 'New switch' },
    { number: 10, title: 'Other line' },
  ],
};
const openedWork = (given: Partial<Work> = {}) => {
  server().on(api.works.get, work(given));
  const route = (
    <Routes>
      <Route path="/estate/works/:number" element={<WorkPage />} />
    </Routes>
  );
  return show(route, { me: KEEPER, address: '/estate/works/9' });
};

test('a change says what is reckoned of it, what it clashes with in words, and is begun', async () => {
  server().on(api.works.start, { version: 4 });
  await openedWork({ reckoned: reckoned({ clashes: [TOGETHER] }) });
  expect(await screen.findByText('Risk high: impact medium, chance of failing high.')).toBeTruthy();
  expect(screen.getByText('Together with 10 Other line it takes down Tills')).toBeTruthy();
  expect(screen.getByText(/1 of 4 such changes went wrong within a year/)).toBeTruthy();
  press('Begin the work');
  await waitFor(() => expect(server().callsOf(api.works.start)[0]!.body).toEqual({ version: 3 }));
});

test('what is refused is said with the field that it is about', async () => {
  server().on(
    api.works.start,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'things', code: 'retired' }] }),
  );
  await openedWork();
  fireEvent.click(await screen.findByRole('button', { name: 'Begin the work' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(
    /What it takes out meanwhile: One of the things is retired/,
  );
});

test('what went wrong asks for a review, which is kept', async () => {
  server().on(api.works.review, { version: 4 });
  await openedWork({ stage: 'failed', outcome: 'failed', needsReview: true, acts: ['review'] });
  expect(await screen.findByText(/looked at once more/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Review'), { target: { value: 'Test it first' } });
  press('Save');
  await waitFor(() =>
    expect(server().callsOf(api.works.review)[0]!.body).toMatchObject({ review: 'Test it first' }),
  );
});

const template = (given: Partial<WorkTemplate> = {}): WorkTemplate => ({
  ...{
    serviceId: 's',
    title: both('Work on a line'),
    description: both('Ashore'),
    teamId: 'network',
    isStandard: false,
  },
  ...{ minutes: 60, why: both(''), test: both('Ping it'), takeBack: both('Back'), thingIds: [], version: 1 },
  ...{ past: { failed: 0, all: 0 }, advice: null, maySet: false },
  ...given,
});

test('a template fills in what is blank, and what is written survives a reload', async () => {
  server()
    .on(api.works.templates, [template()])
    .on(api.works.check, reckoned())
    .on(api.calendars.list, [])
    .on(api.estate.list, {
      rows: [],
      after: null,
      count: 0,
      attention: { claimed: 0, overdue: 0, unseen: 0, warranty: 0 },
    });
  const first = await show(<NewWorkPage />, { me: KEEPER, address: '/estate/works/new' });
  fireEvent.click(await screen.findByLabelText('What kind of change?', { selector: 'input' }));
  fireEvent.click(await screen.findByRole('option', { name: 'Work on a line', hidden: true }));
  expect(
    (await screen.findByLabelText<HTMLTextAreaElement>('How one finds out that it has worked')).value,
  ).toBe('Ping it');
  fireEvent.change(screen.getByLabelText('Why'), { target: { value: 'It is old' } });
  first.unmount();
  await show(<NewWorkPage />, { me: KEEPER, address: '/estate/works/new' });
  expect((await screen.findByLabelText<HTMLTextAreaElement>('Why')).value).toBe('It is old');
});

const calendar = (given: Partial<WorkCalendar> = {}): WorkCalendar => ({
  ...{ works: [card()], freezes: [], notices: [], things: [ref('a')], clashes: [], maySetFreezes: false },
  ...given,
});

test('on the calendar a change is moved by the arrow keys, its clashes reckoned as it goes, and put there when it is saved', async () => {
  server()
    .on(api.works.calendar, calendar())
    .on(api.works.list, [])
    .on(api.works.check, reckoned({ clashes: [TOGETHER] }))
    .on(api.works.move, { version: 4 });
  await show(<WorksPage />, { me: KEEPER, address: '/estate/works' });
  const bar = await screen.findByRole('button', { name: /9, New switch, planned/ });
  fireEvent.keyDown(bar, { key: 'ArrowRight', shiftKey: true });
  fireEvent.keyDown(bar, { key: 'ArrowLeft' });
  expect(await screen.findByText('Together with 10 Other line it takes down Tills')).toBeTruthy();
  press('Save');
  const fromAt = FROM + 23 * HOUR;
  await waitFor(() =>
    expect(server().callsOf(api.works.move)[0]!.body).toEqual({
      version: 3,
      fromAt,
      toAt: fromAt + 2 * HOUR,
    }),
  );
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Leave it' })).toBeNull());
});

test('clashes are struck and said, freezes named; who may not move a change cannot', async () => {
  const freeze = {
    id: 'f',
    name: both('Season'),
    fromAt: FROM,
    toAt: FROM + HOUR,
    thingIds: null,
    version: 1,
  };
  server()
    .on(
      api.works.calendar,
      calendar({ works: [card({ mayMove: false })], clashes: [TOGETHER], freezes: [freeze] }),
    )
    .on(api.works.list, [card()]);
  await show(<WorksPage />, { me: KEEPER, address: '/estate/works' });
  const bar = await screen.findByRole('button', { name: /Together with 10 Other line/ });
  expect(bar.dataset.clash).toBe('true');
  expect(screen.getByText('1 clash in this stretch')).toBeTruthy();
  expect(screen.getByText('Season')).toBeTruthy();
  fireEvent.keyDown(bar, { key: 'ArrowRight' });
  expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
});

test('the meeting goes through what is to be decided, one after the other', async () => {
  server()
    .on(api.works.list, [card({ stage: 'asked' }), card({ number: 10, title: 'Other line', stage: 'asked' })])
    .on(api.works.get, ({ params }) =>
      work({ number: Number(String(params.number)), title: `Change ${params.number}`, stage: 'asked' }),
    )
    .on(api.approvals.mine, []);
  await show(<BoardPage />, { me: KEEPER });
  expect(await screen.findByText('Change 9')).toBeTruthy();
  expect(screen.getByText('1 of 2')).toBeTruthy();
  press('Next');
  expect(await screen.findByText('Change 10')).toBeTruthy();
  expect(screen.getByText('You are not asked to decide this one.')).toBeTruthy();
});

const problemCard = (given: Partial<ProblemCard> = {}): ProblemCard => ({
  ...{
    number: 5,
    title: 'Kiosks freeze',
    stage: 'lookedInto',
    teamId: 'desk',
    team: both('Desk'),
    assignee: null,
  },
  ...{
    createdAt: now(),
    solvedAt: null,
    backAt: null,
    incidents: 2,
    openIncidents: 1,
    workaround: '',
    articleId: null,
  },
  ...given,
});
const problem = (given: Partial<Problem> = {}): Problem => ({
  ...{ ...problemCard(), version: 2, cause: '', causeKindId: null, things: [], works: [], cost: 7_200_000 },
  tied: [{ number: 7, title: 'Kiosk 3', state: 'inWork', at: now(), tie: 'suspected', reason: '' }],
  ...{ byWeek: [0, 0, 0, 0, 0, 1, 0, 2], effect: null, mayChange: true },
  ...given,
});
const openedProblem = (given: Partial<Problem> = {}) => {
  server().on(api.problems.get, problem(given)).on(api.problems.causeKinds, { kinds: [], maySet: false });
  const route = (
    <Routes>
      <Route path="/estate/problems/:number" element={<ProblemPage />} />
    </Routes>
  );
  return show(route, { me: KEEPER, address: '/estate/problems/5' });
};

test('what keeps breaking stands beside the problems, and one is opened from it with its incidents', async () => {
  const group: RecurringGroup = {
    ...{
      thing: null,
      service: both('Kiosks'),
      serviceId: 'kiosk',
      title: 'Roll jammed',
      numbers: [1, 2, 3],
      cost: 60_000,
    },
    problem: null,
  };
  server()
    .on(api.problems.list, [problemCard()])
    .on(api.problems.recurring, [
      group,
      { ...group, numbers: [4, 5, 6], title: 'Other', problem: { number: 5, title: 'Kiosks freeze' } },
    ])
    .on(api.people.teams, [])
    .on(api.problems.create, { number: 8 });
  await show(<ProblemsPage />, { me: KEEPER });
  expect(await screen.findByText('Belongs to 5 Kiosks freeze')).toBeTruthy();
  const [, fromGroup] = screen.getAllByRole('button', { name: 'Open a problem' });
  fireEvent.click(fromGroup!);
  fireEvent.click((await screen.findAllByRole('button', { name: 'Open a problem' })).at(-1)!);
  await waitFor(() =>
    expect(server().callsOf(api.problems.create)[0]!.body).toMatchObject({
      title: 'Roll jammed',
      numbers: [1, 2, 3],
    }),
  );
});

test('an incident is taken off a problem with a reason; how often they come since stands in words', async () => {
  server().on(api.problems.tie, { ok: true });
  await openedProblem({ effect: { ratio: 0.25, low: 0.1, high: 0.6 } });
  expect(await screen.findByText(/0.25 times as often \(between 0.10 and 0.60\)/)).toBeTruthy();
  press('It does not');
  fireEvent.change(await screen.findByLabelText('Why it does not come of it'), {
    target: { value: 'No paper' },
  });
  fireEvent.click(screen.getAllByRole('button', { name: 'Save' }).at(-1)!);
  await waitFor(() =>
    expect(server().callsOf(api.problems.tie)[0]!.body).toEqual({
      numbers: [7],
      tie: 'dropped',
      reason: 'No paper',
    }),
  );
});

test('a stage that asks for more says it at the field, and what was written stays', async () => {
  server().on(
    api.problems.update,
    refuse(422, 'fieldsNotValid', { fields: [{ field: 'cause', code: 'missing' }] }),
  );
  await openedProblem();
  const meanwhile = await screen.findByLabelText<HTMLTextAreaElement>('What one does meanwhile');
  fireEvent.change(meanwhile, { target: { value: 'Restart it' } });
  press('Save');
  await waitFor(() =>
    expect(screen.getByLabelText('What we think, or know, the cause is').getAttribute('aria-invalid')).toBe(
      'true',
    ),
  );
  expect(meanwhile.value).toBe('Restart it');
});
