import { planOutOfHours, WAITS, type OutOfHours } from './outOfHours';

const words = { en: 'We open {opens}.', pt: 'Abrimos {opens}.' };
const toDesk: OutOfHours = { goesTo: 'desk', priorities: ['P1', 'P2'], words };
const onDuty = (...ids: string[]) => ({ isWorking: (id: string) => ids.includes(id) });

test.each([
  ['in hours nothing happens', toDesk, 'P1', ['onboard', 'desk'], null, false],
  ['urgent work goes to the team on duty', toDesk, 'P1', ['desk'], 'desk', true],
  ['the rest waits, and its requester is told', toDesk, 'P3', ['desk'], null, true],
  ['it does not go to a team that is off too', toDesk, 'P1', [], null, true],
  ['by itself it waits in silence', WAITS, 'P1', ['desk'], null, false],
  ['a team is not its own stand-in', { ...toDesk, goesTo: 'onboard' }, 'P1', ['desk'], null, true],
] as const)('%s', (_name, rule, priority, working, goTo, isTold) => {
  const work = { teamId: 'onboard', priority };
  expect(planOutOfHours(rule, work, onDuty(...working))).toEqual({ goTo, isTold });
});
