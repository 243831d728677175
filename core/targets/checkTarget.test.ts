import type { Condition } from '../conditions';
import { canHold, checkTarget } from './checkTarget';
import type { TargetDefinition } from './types';

const is = (field: string, value: string): Condition => ({ field, op: 'is', value });
const sound: TargetDefinition = {
  id: 't',
  name: 'Resolve',
  kind: 'serviceLevel',
  startWhen: is('team', 'network'),
  countFrom: 'start',
  excludeEarlierPauses: false,
  stopWhen: is('state', 'done'),
  cancelWhen: 'never',
  onReopen: 'resume',
  limits: [{ duration: 'PT8H' }],
  calendars: [{ calendarId: 'office' }],
  warnAtPercent: [50],
};

test('a sound target has no problem', () => {
  expect(checkTarget(sound)).toEqual([]);
});

test.each<[string, Partial<TargetDefinition>, string, string]>([
  [
    'a field cannot have two values',
    { startWhen: { all: [is('team', 'a'), is('team', 'b')] } },
    'startWhen',
    'neverStarts',
  ],
  ['nothing of nothing', { startWhen: { any: [] } }, 'startWhen', 'neverStarts'],
  ['it stops whenever it could start', { stopWhen: is('team', 'network') }, 'startWhen', 'neverStarts'],
  [
    'it is called off whenever it could start',
    { cancelWhen: is('team', 'network') },
    'startWhen',
    'neverStarts',
  ],
  [
    'a number cannot be above 5 and below 4',
    {
      stopWhen: {
        all: [
          { field: 'n', op: 'gt', value: 5 },
          { field: 'n', op: 'lt', value: 4 },
        ],
      },
    },
    'stopWhen',
    'neverStops',
  ],
  ['no limit at all', { limits: [] }, 'limits', 'missing'],
  ['a limit that is no duration', { limits: [{ duration: '8 hours' }] }, 'limits', 'malformed'],
  ['no calendar at all', { calendars: [] }, 'calendars', 'missing'],
  ['a warning at nothing', { warnAtPercent: [0] }, 'warnAtPercent', 'notPositive'],
])('%s', (_name, change, field, code) => {
  expect(checkTarget({ ...sound, ...change })).toContainEqual({ field, code });
});

test('a condition with too many values to try is not judged', () => {
  const many = (field: string): Condition => ({
    field,
    op: 'in',
    value: Array.from({ length: 60 }, (_, i) => `${field}${i}`),
  });
  expect(canHold({ all: [many('a'), many('b'), many('c')] })).toBeNull();
});
