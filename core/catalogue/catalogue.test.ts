import {
  changedParts,
  checkService,
  isInAudience,
  type AudiencePerson,
  type ServiceDefinition,
  type ServiceSurroundings,
} from './index';

const said = (en: string) => ({ en, pt: en });
const lena: AudiencePerson = {
  site: 'alder',
  department: 'Deck',
  title: 'Mate',
  vessel: 'MV Petrel',
  teams: [],
  leads: [],
};
const omar: AudiencePerson = {
  ...lena,
  vessel: null,
  department: 'Terminals',
  teams: ['desk'],
  leads: ['desk'],
};

test.each<[string, Parameters<typeof isInAudience>[0], boolean, boolean]>([
  ['nothing said is everyone', [], true, true],
  ['on a vessel', [{ by: 'onVessel' }], true, false],
  ['one of two groups', [{ by: 'onVessel' }, { by: 'lead' }], true, true],
  ['a department', [{ by: 'department', in: ['Terminals'] }], false, true],
  ['a team', [{ by: 'team', in: ['desk', 'people'] }], false, true],
  [
    'any condition',
    [{ by: 'condition', when: { field: 'title', op: 'contains', value: 'mate' } }],
    true,
    true,
  ],
  ['an empty list of sites', [{ by: 'site', in: [] }], false, false],
])('for whom: %s', (_, audience, isForLena, isForOmar) => {
  expect([isInAudience(audience, lena), isInAudience(audience, omar)]).toEqual([isForLena, isForOmar]);
});

const good: ServiceDefinition = {
  ...{
    kind: 'request',
    place: 'desk',
    categoryId: null,
    icon: null,
    otherWords: said(''),
    ownerId: null,
    groupId: null,
  },
  ...{ title: said('Tablet'), description: said('For the bridge'), teamId: 'onboard', audience: [] },
  form: { fields: [{ name: 'vessel', kind: 'text', label: said('Which?'), needed: true }] },
  approvals: [],
  plan: {
    legs: [{ id: 'one', name: said('One') }],
    steps: [
      { id: 'fetch', leg: 'one', name: said('Fetch'), kind: 'task', teamId: 'onboard', effort: 'PT2H' },
    ],
  },
  ...{ fallbackApproverId: null, cost: null, impact: 'person', urgency: 'canWait' },
  ...{ stateWords: {}, articleLabels: null, opening: null, thanks: null },
};
const around: ServiceSurroundings = {
  audience: 40,
  teams: { onboard: { members: 3, leads: 1 }, empty: { members: 0, leads: 0 } },
  hasPerson: (id) => id === 'mara',
  mayCall: (address) => address.startsWith('https://'),
};
const step = good.plan!.steps[0]!;
const agree: ServiceDefinition['approvals'][number] = {
  ...{ name: said('Manager'), refs: [{ manager: 'ofRequester' }] },
  ...{ needs: { kind: 'any' }, declineBy: 'any' },
};

test('nothing is in the way of a service as it should be', () => {
  expect(checkService(good, around)).toEqual([]);
});

test.each<[string, Partial<ServiceDefinition>, string[], Partial<ServiceSurroundings>?]>([
  ['no name in one language', { title: { en: 'Tablet', pt: '' } }, ['about noTitle']],
  ['a team that is gone', { teamId: 'gone' }, ['about noTeam']],
  ['a team without members', { teamId: 'empty' }, ['about emptyTeam']],
  ['an audience of nobody', {}, ['audience nobody'], { audience: 0 }],
  [
    'two questions of one name',
    { form: { fields: [good.form.fields[0]!, good.form.fields[0]!] } },
    ['form sameName'],
  ],
  ['nobody asked', { plan: null, approvals: [{ ...agree, refs: [] }] }, ['approvals noApprovers']],
  [
    'someone who left',
    { plan: null, approvals: [{ ...agree, refs: [{ person: 'gone' }] }] },
    ['approvals nobodyDecides'],
  ],
  [
    'leads of a team that has none',
    { plan: null, approvals: [{ ...agree, refs: [{ team: 'empty', only: 'leads' }] }] },
    ['approvals nobodyDecides'],
  ],
  [
    'one of them left',
    { plan: null, approvals: [{ ...agree, refs: [{ person: 'gone' }, { person: 'mara' }] }] },
    ['approvals someoneGone'],
  ],
  [
    'a condition on what is not asked',
    { plan: null, approvals: [{ ...agree, when: { field: 'size', op: 'notEmpty' } }] },
    ['approvals unknownField'],
  ],
  [
    'a condition on the cost',
    { plan: null, approvals: [{ ...agree, when: { field: 'cost', op: 'gt', value: 50_000 } }] },
    [],
  ],
  [
    'words at the end with a blank that nothing fills',
    { plan: { ...good.plan!, doneWords: { en: 'It is at {where}.', pt: 'Está em {vessel}, {name}.' } } },
    ['plan unknownBlank'],
  ],
  ['an approval that a plan would pass by', { approvals: [agree] }, ['approvals besidePlan']],
  ...(['file:///etc/passwd', 'https://supplier.example/orders'] as const).map(
    (address): [string, Partial<ServiceDefinition>, string[]] => [
      `a step that calls ${address}`,
      {
        plan: {
          ...good.plan!,
          steps: [
            {
              ...{ id: 'order', leg: 'one', name: said('Order'), kind: 'automatic' },
              action: { do: 'send', address },
            },
          ],
        },
      },
      address.startsWith('https') ? [] : ['plan addressNotAllowed'],
    ],
  ),
  ['a plan in a ring', { plan: { ...good.plan!, steps: [{ ...step, after: ['fetch'] }] } }, ['plan cycle']],
  [
    'a step without a team',
    { plan: { ...good.plan!, steps: [{ ...step, kind: 'task', teamId: '' }] } },
    ['plan noTeam'],
  ],
  [
    'an approval in a plan that nobody can decide',
    {
      plan: {
        ...good.plan!,
        steps: [
          {
            ...{ id: 'ok', leg: 'one', name: said('OK'), kind: 'approval' },
            refs: [{ person: 'gone' }],
            needs: { kind: 'any' },
            declineBy: 'any',
          },
        ],
      },
    },
    ['plan nobodyDecides'],
  ],
  [
    'a plan without steps',
    { plan: { legs: [{ id: 'one', name: said('One') }], steps: [] } },
    ['plan emptyLeg', 'plan noSteps'],
  ],
])('found while editing: %s', (_, change, expected, more = {}) => {
  const problems = checkService({ ...good, ...change }, { ...around, ...more });
  expect(problems.map(({ part, code }) => `${part} ${code}`)).toEqual(expected);
});

test('which parts two versions differ in, in the order of the page', () => {
  expect(changedParts(good, structuredClone(good))).toEqual([]);
  expect(
    changedParts(good, {
      ...good,
      articleLabels: [],
      cost: 5_00,
      title: said('Pad'),
      approvals: [],
      plan: null,
    }),
  ).toEqual(['about', 'plan', 'help']);
  // A version that was written before services had owners.
  const { ownerId: _, ...older } = good;
  expect(changedParts(older as ServiceDefinition, good)).toEqual([]);
});
