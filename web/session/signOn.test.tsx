import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { api } from '../../contract';
import '../messages/signOnWords';
import { refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { AT } from '../testing/ticket';
import { Factor } from './Factor';
import { FactorNeeded } from './FactorNeeded';
import { SignIn } from './SignIn';
import { WelcomePage } from './WelcomePage';

/** Signing in at a provider or with a code, and setting a second factor. */
const server = standIn();
const user = () => userEvent.setup({ delay: null });
const SOLVARRA = { id: 'solvarra', name: 'Solvarra account', domains: ['solvarra.example'] };
const OK = { ok: true } as const;
const SECRET = 'JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP';

type Opened = { hasPasswords?: boolean; address?: string; language?: 'en' | 'pt' };
async function open({ hasPasswords = true, address = '/ask', language = 'en' }: Opened = {}) {
  const ways = { providers: [SOLVARRA], hasPasswords };
  await show(<SignIn isDemo={false} hasEnded={false} ways={ways} />, { address, language });
}
const typed = async (email: string) => {
  await user().type(screen.getByLabelText('Mail address'), email);
  await user().type(screen.getByLabelText('Password'), 'correct horse');
};

describe('signing in', () => {
  test('a provider leads there, and back to the page that one came for', async () => {
    await open({ address: '/ask/tickets?state=open&signOn=failed' });
    const link = screen.getByRole('link', { name: 'Sign in with Solvarra account' });
    expect(link.getAttribute('href')).toBe(
      `/sign-on/solvarra?back=${encodeURIComponent('/ask/tickets?state=open')}`,
    );
    expect(screen.getByRole('alert').textContent).toContain('was not right');
  });

  test('an address of the provider’s domains is told where it signs in', async () => {
    await open();
    await user().type(screen.getByLabelText('Mail address'), 'ines@solvarra.exampl');
    expect(screen.queryByText(/With this address/)).toBeNull();
    await user().type(screen.getByLabelText('Mail address'), 'e');
    expect(screen.getByText('With this address you sign in at Solvarra account.')).toBeTruthy();
  });

  test('a code is asked for once it is known to be needed; a wrong one can be given anew', async () => {
    const answers = [refuse(401, 'codeNeeded'), refuse(401, 'wrongFactorCode'), OK];
    server()
      .on(api.session.signIn, () => answers.shift()!)
      .on(api.session.get, refuse(503, 'busy'));
    await open();
    expect(screen.queryByLabelText('Code')).toBeNull();
    await typed('marta@solvarra.example');
    await user().click(screen.getByRole('button', { name: 'Sign in' }));
    const code = await screen.findByLabelText('Code');
    expect(document.activeElement).toBe(code);
    await user().type(code, '000000{Enter}');
    expect(await screen.findByText(/not the code of now/)).toBeTruthy();
    expect((code as HTMLInputElement).value).toBe('');
    await user().type(code, '123456{Enter}');
    await waitFor(() => expect(server().callsOf(api.session.signIn)).toHaveLength(3));
    expect(server().callsOf(api.session.signIn)[2]!.body).toEqual({
      ...{ email: 'marta@solvarra.example', password: 'correct horse', code: '123456' },
    });
  });

  test('without passwords there is a way for an emergency alone', async () => {
    await open({ hasPasswords: false });
    expect(screen.queryByLabelText('Password')).toBeNull();
    await user().click(screen.getByRole('button', { name: 'Emergency sign-in' }));
    expect(screen.getByLabelText('Password')).toBeTruthy();
  });

  test('who was not let in reads why, in Portuguese too; what is no reason says nothing', async () => {
    await open({ address: '/ask?signOn=notKnown', language: 'pt' });
    expect(screen.getByRole('alert').textContent).toContain('não é conhecida aqui');
    await open({ address: '/ask?signOn=<b>' });
    expect(screen.queryByRole('alert')).toBeNull();
  });
});

describe('a second factor', () => {
  const beginsWith = () =>
    server().on(api.session.beginFactor, { secret: SECRET, address: `otpauth://totp/x?secret=${SECRET}` });

  test('is set by a picture or by typing, and shows its spare codes until one has kept them', async () => {
    let since: number | null = null;
    beginsWith().on(api.session.factor, () => ({ since, spares: since === null ? 0 : 8 }));
    const answers = [refuse(401, 'wrongFactorCode'), { spares: ['abcde-fghjk', 'mnpqr-stuvw'] }];
    server().on(api.session.confirmFactor, () => answers.shift()!);
    await show(<Factor />);
    await user().click(await screen.findByRole('button', { name: 'Set one' }));
    expect((await screen.findByRole('img')).getAttribute('src')).toContain('data:image/svg+xml');
    expect(screen.getByText('JBSW Y3DP EHPK 3PXP JBSW Y3DP EHPK 3PXP')).toBeTruthy();
    await user().type(screen.getByLabelText('The code that it shows now'), '111111{Enter}');
    expect(await screen.findByText(/not the code of now/)).toBeTruthy();
    // The same secret goes on: what the phone has read is not worth nothing.
    expect(server().callsOf(api.session.beginFactor)).toHaveLength(1);
    since = AT;
    await user().click(screen.getByRole('button', { name: 'Set' }));
    expect(await screen.findByText('abcde-fghjk')).toBeTruthy();
    await user().click(screen.getByRole('button', { name: 'I have kept them' }));
    expect(await screen.findByText(/8 spare codes are left/)).toBeTruthy();
    expect(screen.queryByText('abcde-fghjk')).toBeNull();
  });

  test('is taken away by a code', async () => {
    server().on(api.session.factor, { since: AT, spares: 1 }).on(api.session.removeFactor, OK);
    await show(<Factor />);
    expect(await screen.findByText(/1 spare code is left/)).toBeTruthy();
    const button = screen.getByRole('button', { name: 'Take it away' });
    expect((button as HTMLButtonElement).disabled).toBe(true);
    await user().type(screen.getByLabelText('A code of it'), '123456');
    server().on(api.session.factor, { since: null, spares: 0 });
    await user().click(button);
    expect(await screen.findByRole('button', { name: 'Set one' })).toBeTruthy();
  });

  test('that is asked of one stands before everything, with a way out', async () => {
    beginsWith().on(api.session.signOut, { goOnAt: null });
    await show(<FactorNeeded />);
    expect(screen.getByRole('heading', { name: 'A second factor is asked of you' })).toBeTruthy();
    await user().click(screen.getByRole('button', { name: 'Sign in as somebody else' }));
    await waitFor(() => expect(server().callsOf(api.session.signOut)).toHaveLength(1));
  });
});

test('a link for another password asks for the code of who has a second factor', async () => {
  const token = 'a-token-of-more-than-twenty-letters';
  const answers = [refuse(401, 'codeNeeded'), OK];
  server()
    .on(api.organisation.invitation, {
      ...{ state: 'open', name: 'Marta Reis', email: 'marta@solvarra.example', organisation: 'Solvarra' },
    })
    .on(api.organisation.accept, () => answers.shift()!);
  await show(
    <Routes>
      <Route path="welcome/:token" element={<WelcomePage />} />
      <Route path="ask" element={<p>in</p>} />
    </Routes>,
    { address: `/welcome/${token}` },
  );
  await user().type(
    await screen.findByLabelText(/password/i, { selector: 'input' }),
    'a quite new password{Enter}',
  );
  await user().type(await screen.findByLabelText('Code'), '123456{Enter}');
  expect(await screen.findByText('in')).toBeTruthy();
  expect(
    server()
      .callsOf(api.organisation.accept)
      .map(({ body }) => body.code),
  ).toEqual([undefined, '123456']);
});
