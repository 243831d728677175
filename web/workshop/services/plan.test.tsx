import { fireEvent, screen, within } from '@testing-library/react';
import { useState } from 'react';
import type { EditedDefinition } from '../../../contract/services';
import { api } from '../../../contract';
import { standIn } from '../../testing/server';
import { teamOf } from '../../testing/team';
import { show } from '../../testing/show';
import '../../messages/servicesWords';
import { ApprovalsPart } from './ApprovalsPart';
import { InTheWay } from './InTheWay';
import { Part } from './Part';
import { PlanPart } from './PlanPart';

/** What must be agreed and what has to happen, as the page of a service writes it. */
const server = standIn();
let now: EditedDefinition;
beforeEach(() => {
  server()
    .on(api.people.teams, [teamOf('desk', 'Service desk', [])])
    .on(api.people.search, []);
});

const none = { title: { en: 'Desk', pt: 'Mesa' }, teamId: 'desk', form: { fields: [] }, approvals: [] };
const begun = { ...none, plan: null, fallbackApproverId: null } as unknown as EditedDefinition;
const agreed = (en: string) => ({
  ...{ name: { en, pt: en }, refs: [{ manager: 'ofRequester' }], needs: { kind: 'any' }, declineBy: 'any' },
});

function Both({ first }: { first: EditedDefinition }) {
  const [definition, set] = useState(first);
  now = definition;
  const change = (part: Partial<EditedDefinition>): void => set((before) => ({ ...before, ...part }));
  const props = { definition, change, isFixed: false, names: new Map(), onName: () => undefined };
  return (
    <>
      <ApprovalsPart {...props} />
      <PlanPart {...props} bad={new Set()} />
    </>
  );
}
const press = (name: string | RegExp): void => {
  fireEvent.click(screen.getByRole('button', { name }));
};
const namesOf = (): string[] => now.plan!.steps.map(({ name }) => name.en);

test('a second approval is none of the first, and a third begins empty', async () => {
  await show(<Both first={begun} />);
  for (let i = 0; i < 3; i++) press('+ someone must agree');
  const [first, second, third] = now.approvals;
  expect(second!.refs).toEqual([{ team: 'desk', only: 'leads' }]);
  expect(second!.name).not.toEqual(first!.name);
  expect([third!.refs, third!.name]).toEqual([[], { en: '', pt: '' }]);
});

test('a plan that is drawn takes over what must be agreed, and one task gives it back', async () => {
  const approvals = [agreed('The budget is there'), agreed('The manager agrees')];
  await show(<Both first={{ ...begun, approvals } as EditedDefinition} />);
  press(/who must agree is its first part/);
  expect(namesOf()).toEqual(['The budget is there', 'The manager agrees', 'New step 1']);
  expect(now.approvals).toEqual([]);
  expect(screen.queryByRole('button', { name: '+ someone must agree' })).toBeNull();
  press('One task is enough');
  expect([now.plan, now.approvals]).toEqual([null, approvals]);
});

test('approvals that a plan passes by become its first part', async () => {
  await show(<Both first={begun} />);
  press('+ draw a plan');
  const plan = now.plan;
  screen.getByText('The plan asks by its own steps.');
  const { unmount } = await show(
    <Both first={{ ...begun, plan, approvals: [agreed('The manager agrees')] } as EditedDefinition} />,
  );
  press('Make them the plan’s first part');
  expect(namesOf()).toEqual(['The manager agrees', 'New step 1']);
  unmount();
});

test('parts change places; a new step has a name of its own', async () => {
  await show(<Both first={begun} />);
  press('+ draw a plan');
  press('+ one more part after these');
  press('Later');
  expect(now.plan!.legs.map(({ name }) => name.en)).toEqual(['Then', 'Do']);
  fireEvent.click(screen.getAllByRole('button', { name: '+ a step' })[0]!);
  expect(namesOf()).toEqual(['New step 1', 'New step 2']);
});

test('what is in the way is listed, and each leads to its part', async () => {
  const problems = [
    { part: 'about', code: 'noDescription' },
    { part: 'plan', code: 'unknownBlank', detail: 'where' },
  ] as const;
  Element.prototype.scrollIntoView = () => undefined;
  await show(
    <>
      <Part name="plan">Steps</Part>
      <InTheWay problems={[...problems]} />
    </>,
  );
  press(/In the way: 2 things/);
  const menu = await screen.findByRole('menu');
  within(menu).getByText(/It has no description/);
  fireEvent.click(within(menu).getByRole('menuitem', { name: /blank for “where”/ }));
  expect(document.activeElement).toBe(screen.getByRole('region', { name: 'What then happens' }));
});
