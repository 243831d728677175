import type { ProgramBody } from '../../contract/programs';
import type { Person, TestListo } from './harness';

/** What a program's account says in tests, but for what is given. */
export const programBody = (given: Partial<ProgramBody> = {}): ProgramBody => ({
  ...{
    name: 'Payroll link',
    purpose: 'Tells payroll who begins.',
    ownerId: 'vasco',
    isOn: true,
    mayChange: true,
  },
  ...{
    isAdministrator: false,
    mayAskForOthers: true,
    teams: [],
    networks: [],
    perMinute: 6_000,
    endsAt: null,
  },
  ...given,
});

export type TestProgram = Person & { id: string; key: string; keyId: string };

/** Makes an account with a key, as an administrator does, and calls with it. */
export async function makeProgram(app: TestListo, given: Partial<ProgramBody> = {}): Promise<TestProgram> {
  const helder = await app.as('helder');
  const made = await helder.call('POST', '/workshop/programs', programBody(given));
  if (made.status !== 200) throw new Error(JSON.stringify(made.body));
  const { id } = made.body as { id: string };
  const answer = await helder.call('POST', `/workshop/programs/${id}/keys`, { endsAt: null });
  const { id: keyId, key } = answer.body as { id: string; key: string };
  return { ...app.withKey(key), id, key, keyId };
}
