import fc from 'fast-check';
import {
  changePlaces,
  findProvider,
  judgeArrival,
  mayUsePassword,
  needsFactor,
  placesOf,
  type Claims,
  type KnownPerson,
  type Place,
} from '.';

const CLAIMS: Claims = {
  ...{ subject: 's1', email: 'ines@solvarra.example', isEmailVerified: true, name: 'Inês Prata', groups: [] },
};
const RULES = { domains: ['solvarra.example'], makesPeople: false };
const NOBODY = { bySubject: null, byEmail: null };
const ines: KnownPerson = { id: 'ines', hasLeft: false, hasOtherSubject: false };

describe('who comes in through a provider', () => {
  test('who was here before comes in by their id there, whatever their address is now', () => {
    const moved = { ...CLAIMS, email: 'ines.prata@elsewhere.example', isEmailVerified: false };
    expect(judgeArrival(moved, RULES, { bySubject: ines, byEmail: null })).toEqual({
      ...{ kind: 'known', personId: 'ines' },
    });
  });
  test('who is known by a verified address is linked', () => {
    expect(judgeArrival(CLAIMS, RULES, { bySubject: null, byEmail: ines })).toEqual({
      ...{ kind: 'linked', personId: 'ines' },
    });
  });
  test.each([
    ['an address that nobody verified', { isEmailVerified: false }, 'mailNotVerified'],
    ['no address', { email: null }, 'mailNotVerified'],
    ['an address of another organisation', { email: 'ines@elsewhere.example' }, 'notItsDomain'],
    ['a domain that only ends alike', { email: 'ines@evil-solvarra.example' }, 'notItsDomain'],
    ['a domain below', { email: 'ines@mail.solvarra.example' }, 'notItsDomain'],
  ])('%s does not open an account', (_what, claims, code) => {
    expect(judgeArrival({ ...CLAIMS, ...claims }, RULES, { bySubject: null, byEmail: ines })).toEqual({
      ...{ kind: 'refused', code },
    });
  });
  test('an address that was given to somebody else does not open the account of who had it before', () => {
    const known = { bySubject: null, byEmail: { ...ines, hasOtherSubject: true } };
    expect(judgeArrival(CLAIMS, RULES, known)).toEqual({ kind: 'refused', code: 'otherSubject' });
  });
  test('who has left does not come back by either way', () => {
    const left = { ...ines, hasLeft: true };
    const refusal = { kind: 'refused', code: 'left' };
    expect(judgeArrival(CLAIMS, RULES, { bySubject: left, byEmail: null })).toEqual(refusal);
    expect(judgeArrival(CLAIMS, RULES, { bySubject: null, byEmail: left })).toEqual(refusal);
  });
  test('who is not known is made where the provider may, and has a name', () => {
    const makes = { ...RULES, makesPeople: true };
    expect(judgeArrival(CLAIMS, RULES, NOBODY)).toEqual({ kind: 'refused', code: 'notKnown' });
    expect(judgeArrival(CLAIMS, makes, NOBODY)).toEqual({
      ...{ kind: 'made', email: CLAIMS.email, name: CLAIMS.name },
    });
    expect(judgeArrival({ ...CLAIMS, name: null }, makes, NOBODY)).toEqual({
      kind: 'refused',
      code: 'nameless',
    });
  });
  test('whatever is said, nobody comes in by an address outside the domains or not verified', () => {
    const person = fc.option(
      fc.record({ id: fc.constantFrom('a', 'b'), hasLeft: fc.boolean(), hasOtherSubject: fc.boolean() }),
    );
    const claims = fc.record({
      subject: fc.string(),
      email: fc.option(fc.constantFrom('a@solvarra.example', 'a@other.example', 'a@SOLVARRA.example')),
      ...{ isEmailVerified: fc.boolean(), name: fc.option(fc.string()), groups: fc.constant<string[]>([]) },
    });
    fc.assert(
      fc.property(claims, fc.boolean(), person, (said, makesPeople, byEmail) => {
        const { kind } = judgeArrival(said, { ...RULES, makesPeople }, { bySubject: null, byEmail });
        const isOurs = said.isEmailVerified && (said.email ?? '').toLowerCase() === 'a@solvarra.example';
        expect(kind === 'refused' || isOurs).toBe(true);
      }),
    );
  });
});

test('an address leads to its provider as soon as its domain is whole', () => {
  const providers = [{ domains: ['solvarra.example', 'solvarra.pt'] }, { domains: ['yard.example'] }];
  expect(findProvider(providers, 'ines@Solvarra.PT ')).toBe(providers[0]);
  expect(findProvider(providers, 'joe@yard.example')).toBe(providers[1]);
  expect(findProvider(providers, 'ines@solvarra')).toBeNull();
  expect(findProvider(providers, 'solvarra.example')).toBeNull();
});

describe('places in teams by groups', () => {
  const table = [
    { group: 'desk', teamId: 'desk', role: 'agent' as const },
    { group: 'desk-leads', teamId: 'desk', role: 'lead' as const },
    { group: 'net', teamId: 'network', role: 'agent' as const },
  ];
  test('of several in one team the highest counts; groups that stand nowhere give nothing', () => {
    expect(placesOf(['desk-leads', 'desk', 'everyone'], table)).toEqual([{ teamId: 'desk', role: 'lead' }]);
    expect(placesOf([], table)).toEqual([]);
  });
  test('a place given by hand stays; one that the provider gave goes with its group', () => {
    const has: Place[] = [
      { teamId: 'desk', role: 'teamAdministrator' },
      { teamId: 'network', role: 'agent' },
    ];
    expect(changePlaces(has, ['network'], [{ teamId: 'desk', role: 'agent' }])).toEqual({
      ...{ set: [], remove: ['network'], gave: [] },
    });
  });
  test('said twice it changes nothing the second time, and no place by hand is ever touched', () => {
    const role = fc.constantFrom('agent' as const, 'lead' as const);
    const places = fc.uniqueArray(fc.record({ teamId: fc.constantFrom('a', 'b', 'c', 'd'), role }), {
      selector: ({ teamId }) => teamId,
    });
    fc.assert(
      fc.property(places, fc.subarray(['a', 'b', 'c', 'd']), places, (has, gave, gives) => {
        const first = changePlaces(has, gave, gives);
        const touched = [...first.set.map(({ teamId }) => teamId), ...first.remove];
        for (const { teamId } of has) if (!gave.includes(teamId)) expect(touched).not.toContain(teamId);
        const after = [...has.filter(({ teamId }) => !touched.includes(teamId)), ...first.set];
        expect(changePlaces(after, first.gave, gives)).toEqual({ set: [], remove: [], gave: first.gave });
      }),
    );
  });
});

describe('passwords and second factors', () => {
  test('switched off, passwords are left to the one who has theirs for an emergency', () => {
    const only = { passwordsOnlyOf: 'helder', factorAskedOf: 'nobody' as const };
    expect([mayUsePassword(only, 'helder'), mayUsePassword(only, 'bia')]).toEqual([true, false]);
    expect(mayUsePassword({ ...only, passwordsOnlyOf: null }, 'bia')).toBe(true);
  });
  test.each([
    ['nobody', [false, false, false]],
    ['administrators', [true, false, false]],
    ['teams', [true, true, false]],
  ] as const)('a second factor asked of %s', (factorAskedOf, expected) => {
    const people = [
      { isAdministrator: true, teams: [] },
      { isAdministrator: false, teams: [{ role: 'agent' as const }] },
      { isAdministrator: false, teams: [] },
    ];
    expect(people.map((person) => needsFactor({ factorAskedOf }, person))).toEqual(expected);
  });
});
