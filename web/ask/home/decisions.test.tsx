import { screen } from '@testing-library/react';
import type { Ask } from '../../../contract/approvals';
import { api } from '../../../contract';
import { standIn } from '../../testing/server';
import { both, TOMAS } from '../../testing/things';
import { show } from '../../testing/show';
import { Decisions } from './Decisions';

/** What waits for one's decision. */
const server = standIn();
const ask = (id: string, title: string): Ask => ({
  ...{ id, number: 7, title, service: both('A chair'), requester: TOMAS, voter: TOMAS, reason: 'manager' },
  ...{ cost: null, since: Date.now(), dueAt: null, questionAt: null, changed: [], answers: [] },
});

test('a mail’s link leads to the decision that it is about, among several', async () => {
  const seen: string[] = [];
  Element.prototype.scrollIntoView = function (this: Element) {
    seen.push(this.id);
  };
  server().on(api.approvals.mine, [ask('a1', 'A chair'), ask('a2', 'A desk')]);
  await show(<Decisions />, { address: '/ask#ask-a2' });
  const article = await screen.findByRole('article', { name: 'A desk' });
  expect([seen, document.activeElement]).toEqual([['ask-a2'], article]);
});

test('without one nothing takes the focus', async () => {
  server().on(api.approvals.mine, [ask('a1', 'A chair')]);
  await show(<Decisions />, { address: '/ask' });
  await screen.findByRole('article', { name: 'A chair' });
  expect(document.activeElement).toBe(document.body);
});
