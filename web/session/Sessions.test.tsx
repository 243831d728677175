import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { api } from '../../contract';
import { AWAY, refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { AT } from '../testing/ticket';
import { Sessions } from './Sessions';

const server = standIn();
const sessionOf = (id: string, userAgent: string, isThis = false) => ({
  ...{ id, createdAt: AT, seenAt: AT, userAgent, isThis },
});
const user = () => userEvent.setup({ delay: null });
const list = (...sessions: ReturnType<typeof sessionOf>[]) => server().on(api.session.list, sessions);
beforeEach(() => server().on(api.session.factor, { since: null, spares: 0 }));
const open = async (language: 'en' | 'pt' = 'en') => {
  await show(<Sessions />, { language });
};

test('others can be ended one by one; the one that one is in says so', async () => {
  list(sessionOf('here', 'Firefox on Linux', true), sessionOf('phone', 'A telephone'));
  server().on(api.session.end, () => {
    list(sessionOf('here', 'Firefox on Linux', true));
    return { ok: true } as const;
  });
  await open();
  const here = (await screen.findByText('Firefox on Linux')).closest('tr')!;
  expect(within(here).getByText('this one')).toBeTruthy();
  expect(within(here).queryByRole('button')).toBeNull();
  const phone = screen.getByText('A telephone').closest('tr')!;
  await user().click(within(phone).getByRole('button', { name: 'End' }));
  await waitFor(() => expect(screen.queryByText('A telephone')).toBeNull());
  expect(server().callsOf(api.session.end)[0]!.params).toEqual({ id: 'phone' });
  // Where there is but one, there is nothing else to end.
  expect(screen.queryByRole('button', { name: 'End all others' })).toBeNull();
});

test('all others end at once', async () => {
  list(sessionOf('here', 'Firefox', true), sessionOf('a', 'Phone'), sessionOf('b', 'Kiosk'));
  server().on(api.session.endOthers, () => {
    list(sessionOf('here', 'Firefox', true));
    return { ended: 2 };
  });
  await open();
  await user().click(await screen.findByRole('button', { name: 'End all others' }));
  await waitFor(() => expect(screen.queryByText('Kiosk')).toBeNull());
});

test('a list that cannot be read says so, and is asked for again', async () => {
  server().on(api.session.list, AWAY);
  await open();
  expect(await screen.findByText(/No connection/)).toBeTruthy();
  list(sessionOf('here', 'Firefox', true));
  await user().click(screen.getByRole('button', { name: /again/i }));
  expect(await screen.findByText('Firefox')).toBeTruthy();
});

describe('another password', () => {
  const fill = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const change = async () => {
    fill('The password until now', 'old and worn out');
    fill('The new password', 'a much better one');
    await user().click(screen.getByRole('button', { name: 'Change it' }));
  };
  beforeEach(() => void list(sessionOf('here', 'Firefox', true)));

  test('is sent with the one until now, and both fields are empty then', async () => {
    server().on(api.session.password, { ok: true });
    await open();
    const button = screen.getByRole('button', { name: 'Change it' });
    expect(button).toHaveProperty('disabled', true);
    await change();
    expect(await screen.findByText(/Your password is changed/)).toBeTruthy();
    expect(screen.getByLabelText('The password until now')).toHaveProperty('value', '');
    expect(screen.getByLabelText('The new password')).toHaveProperty('value', '');
    expect(server().callsOf(api.session.password)[0]!.body).toEqual({
      ...{ current: 'old and worn out', password: 'a much better one' },
    });
  });

  test('that is too easy is refused at its field, and nothing is lost', async () => {
    const fields = [{ field: 'password', code: 'tooSimple' }];
    server().on(api.session.password, refuse(422, 'fieldsNotValid', { fields }));
    await open();
    await change();
    expect(await screen.findByText(/too easy to guess/)).toBeTruthy();
    expect(screen.getByLabelText('The new password')).toHaveProperty('value', 'a much better one');
  });

  test('with a wrong one until now says what is wrong', async () => {
    server().on(api.session.password, refuse(401, 'wrongNameOrPassword'));
    await open();
    await change();
    expect((await screen.findByRole('alert')).textContent).toMatch(/password/i);
  });
});

test('in Portuguese', async () => {
  list(sessionOf('here', 'Firefox', true));
  await open('pt');
  expect(screen.getByRole('heading', { level: 1, name: 'Onde tem sessão aberta' })).toBeTruthy();
});
