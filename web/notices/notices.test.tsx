import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { api } from '../../contract';
import type { Notice, NoticeCard, ReaderNotice } from '../../contract/notices';
import { CALL_BACK_MS } from '../../core/notices';
import { Known } from '../desk/ticket/Known';
import { now } from '../api/clock';
import { refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { both, KEEPER, ref } from '../testing/things';
import { ticketOf } from '../testing/ticket';
import { FittingNotices, NoticeBands } from './Bands';
import { NoticePage } from '../estate/notices/NoticePage';
import { OpenNotices } from './OpenNotices';

/** Notices as those read them whom they concern, and as they are kept at the Desk. */
const server = standIn();
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));
const HOUR = 3_600_000;

const reader = (given: Partial<ReaderNotice> = {}): ReaderNotice => ({
  ...{ id: 'n1', kind: 'outage', state: 'on', title: both('No network'), words: both('Pay in cash.') },
  ...{ fromAt: now() - HOUR, untilAt: null, endedAt: null, isLonger: false, isMajor: false, updates: [] },
  ...{ followers: 0, isFollowed: false, ownTicket: null, fit: 0 },
  ...given,
});

describe('for everyone it concerns', () => {
  test('it says what does not work and what to do; having it too takes one click, and is taken back by one', async () => {
    server()
      .on(api.notices.mine, [reader({ followers: 3 })])
      .on(api.notices.follow, { ok: true });
    await show(<NoticeBands />);
    const band = await screen.findByRole('article');
    expect(band.textContent).toMatch(/Does not work now.*No network.*Pay in cash/s);
    expect(band.textContent).toContain('3 have said so');
    server().on(api.notices.mine, [reader({ isFollowed: true, followers: 4 })]);
    press(/I have this too/);
    expect(await screen.findByText('You hear how it goes on.')).toBeTruthy();
    expect(server().callsOf(api.notices.follow)[0]!.body).toEqual({ isFollowed: true });
    press('No longer');
    await waitFor(() => expect(server().callsOf(api.notices.follow)[1]!.body).toEqual({ isFollowed: false }));
  });

  test('whoever has a ticket under it is told so, and not asked; what is over asks nothing', async () => {
    server().on(api.notices.mine, [
      reader({ ownTicket: 7 }),
      reader({ id: 'n2', title: both('Power'), state: 'ended', endedAt: now() - HOUR / 2 }),
    ]);
    await show(<NoticeBands />);
    expect(await screen.findByText('Your ticket 7 is part of it.')).toBeTruthy();
    expect(screen.getByText('Works again')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  test('at a form only what fits stands, and a following that fails says so', async () => {
    server()
      .on(api.notices.mine, [reader({ id: 'other', title: both('Heating'), fit: 0 }), reader({ fit: 0.8 })])
      .on(api.notices.follow, refuse(429, 'tooManyCalls'));
    await show(<FittingNotices words="no network" service="kiosk" />);
    expect(await screen.findByText('No network')).toBeTruthy();
    expect(screen.queryByText('Heating')).toBeNull();
    press(/I have this too/);
    expect(await screen.findByRole('alert')).toBeTruthy();
  });

  test('in Portuguese it is read in Portuguese', async () => {
    server().on(api.notices.mine, [reader({ title: { en: 'No network', pt: 'Sem rede' } })]);
    await show(<NoticeBands />, { language: 'pt' });
    expect(await screen.findByText('Sem rede')).toBeTruthy();
    expect(screen.getByText('Não funciona agora')).toBeTruthy();
  });

  test('without signing in one reads that everything works', async () => {
    server().on(api.notices.open, []);
    await show(<OpenNotices />);
    expect(await screen.findByText('Everything works, as far as we know.')).toBeTruthy();
  });
});

const card = (given: Partial<NoticeCard> = {}): NoticeCard => ({
  ...{
    id: 'n1',
    kind: 'outage',
    state: 'on',
    title: both('No network'),
    fromAt: now() - HOUR,
    untilAt: null,
  },
  ...{
    endedAt: null,
    isLonger: false,
    isMajor: true,
    isPublic: false,
    lead: null,
    teamId: 'desk',
    tickets: 1,
    followers: 2,
  },
  ...given,
});
const PERSON = { id: 'sten', name: 'Sten Moberg', goesFirst: false };
const notice = (given: Partial<Notice> = {}): Notice => ({
  ...{
    ...card(),
    words: both('Pay in cash.'),
    forAgents: '',
    audience: [],
    serviceIds: [],
    thingIds: [],
    leadId: null,
  },
  ...{
    version: 4,
    createdAt: now() - HOUR,
    calledBackAt: null,
    by: PERSON,
    team: both('Desk'),
    things: [ref('net')],
  },
  ...{ services: [], ofTicket: 7, ofWork: null, updates: [], openTickets: 1, people: 1, sites: 1, reach: 40 },
  tied: [{ number: 7, title: 'Terminal dead', state: 'inWork', requester: PERSON, at: now() - HOUR }],
  line: [{ at: now() - HOUR, kind: 'began', count: 1, by: null, words: '' }],
  ...{ mayChange: true, mayCallBack: false, review: '' },
  ...given,
});
const opened = (given: Partial<Notice> = {}) => {
  server().on(api.notices.get, notice(given));
  const route = (
    <Routes>
      <Route path="/estate/notices/:id" element={<NoticePage />} />
    </Routes>
  );
  return show(route, { me: KEEPER, address: '/estate/notices/n1' });
};

describe('at the Desk', () => {
  test('it is told on to so many people, and ended with its tickets done', async () => {
    server().on(api.notices.say, { version: 5 }).on(api.notices.end, { version: 5, jobId: 'job' });
    await opened();
    expect(await screen.findByText('It began')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('What to tell them, en'), { target: { value: 'Soon' } });
    press('Tell 3 people');
    await waitFor(() =>
      expect(server().callsOf(api.notices.say)[0]!.body).toMatchObject({
        version: 4,
        words: { en: 'Soon', pt: '' },
      }),
    );
    fireEvent.change(screen.getByLabelText('What to tell them, en'), { target: { value: 'It works' } });
    fireEvent.click(screen.getByLabelText('It is over'));
    expect(screen.getByLabelText<HTMLInputElement>('Mark its 1 open ticket as done with it').checked).toBe(
      true,
    );
    press('End it and tell them');
    await waitFor(() =>
      expect(server().callsOf(api.notices.end)[0]!.body).toMatchObject({ isFinishing: true }),
    );
  });

  test('words that are missing are said at their field', async () => {
    server().on(
      api.notices.say,
      refuse(422, 'fieldsNotValid', { fields: [{ field: 'words', code: 'missing' }] }),
    );
    await opened();
    fireEvent.click(await screen.findByRole('button', { name: 'Tell 3 people' }));
    expect((await screen.findByRole('alert')).textContent).not.toBe('');
  });

  test('for a minute it can be called back; then that is gone', async () => {
    server().on(api.notices.callBack, { ok: true });
    const { unmount } = await opened({ createdAt: now() - CALL_BACK_MS + 30_000, mayCallBack: true });
    fireEvent.click(await screen.findByRole('button', { name: 'Call it back' }));
    await waitFor(() => expect(server().callsOf(api.notices.callBack)).toHaveLength(1));
    unmount();
    await opened({ createdAt: now() - CALL_BACK_MS, mayCallBack: true });
    expect(await screen.findByText('It began')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Call it back' })).toBeNull();
  });

  test('what is over has a review beside its line of time, and nothing more to tell', async () => {
    server().on(api.notices.review, { version: 5 });
    await opened({ state: 'ended', endedAt: now() });
    fireEvent.change(await screen.findByLabelText('What we learned'), { target: { value: 'A second line' } });
    press('Save');
    await waitFor(() =>
      expect(server().callsOf(api.notices.review)[0]!.body).toMatchObject({ review: 'A second line' }),
    );
    expect(screen.queryByText('Tell how it goes on')).toBeNull();
  });

  test('on a ticket, what fits is tied in one click, and what was changed shortly before stands beside', async () => {
    server()
      .on(api.notices.ofTicket, { tied: [], fitting: [card()] })
      .on(api.notices.tie, { jobId: null })
      .on(api.problems.ofTicket, { tied: [], fitting: [] })
      .on(api.works.beside, []);
    await show(<Known ticket={ticketOf([], { kind: 'incident', rights: ['note', 'readNotes'] })} />, {
      me: KEEPER,
    });
    const part = (await screen.findByText('It may be this:')).closest('li')!;
    fireEvent.click(within(part).getByRole('button', { name: 'Tie it' }));
    await waitFor(() => expect(server().callsOf(api.notices.tie)[0]!.params).toEqual({ id: 'n1' }));
  });
});
