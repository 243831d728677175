import { fireEvent, screen, waitFor } from '@testing-library/react';
import { api } from '../../../contract';
import type { RuleOnTicket } from '../../../contract/rules';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { AT, entryOf, ticketOf } from '../../testing/ticket';
import { RulesOf } from './RulesOf';
import { Thread } from './Thread';

/** What rules did on a ticket: by whose name it stands there, how it is put back, and why others did not fire. */
const server = standIn();
const both = (text: string) => ({ en: text, pt: text });
const CARDS = { id: 'cards', name: both('Cards') };
const MADE_URGENT = { priority: { from: 'P3', to: 'P1' } };
const byRule = (type: Parameters<typeof entryOf>[0], given: object = {}) =>
  entryOf(type, { rule: CARDS, ...given });

test('what a rule did stands there under its name, and never as a person’s', async () => {
  const said = byRule('ruleSaid', { data: { rule: both('Cards'), words: both('We look at it.') } });
  const gone = entryOf('taken', { rule: { id: 'x', name: null } });
  await show(
    <Thread ticket={ticketOf([byRule('changed', { changes: MADE_URGENT }), said, gone])} now={AT} />,
  );
  expect(screen.getByText(/^Rule “Cards” changed Priority from “P3” to “P1”/)).toBeTruthy();
  expect(screen.getByText('Rule “Cards” wrote to those who follow it: We look at it.')).toBeTruthy();
  expect(screen.getByText('A rule that is gone took it')).toBeTruthy();
});

test('what could not be done is said, with why', async () => {
  const data = { rule: both('Cards'), effect: 'give', code: 'moveNotAllowed' };
  await show(<Thread ticket={ticketOf([byRule('ruleFailed', { data })])} now={AT} />);
  expect(screen.getByText(/^Rule “Cards” could not give it on\. That is not possible any more/)).toBeTruthy();
});

test('whoever asked reads that it was written by itself', async () => {
  const said = entryOf('ruleSaid', { data: { words: both('We look at it.') }, audience: 'requester' });
  await show(<Thread ticket={ticketOf([said])} now={AT} />);
  expect(screen.getByText('Listo wrote, by itself: We look at it.')).toBeTruthy();
});

test('a rule’s change is put back as long as nothing of it was changed since, by those who work on it', async () => {
  server().on(api.rules.undo, { ok: true });
  const changed = byRule('changed', { changes: MADE_URGENT });
  const rights = ['read', 'work', 'note'] as const;
  await show(<Thread ticket={ticketOf([changed], { rights: [...rights] })} now={AT} />);
  fireEvent.click(screen.getByRole('button', { name: 'Put it back' }));
  await waitFor(() =>
    expect(
      server()
        .callsOf(api.rules.undo)
        .map(({ params }) => params),
    ).toEqual([{ number: '1204', entryId: String(changed.id) }]),
  );
  const later = entryOf('changed', { changes: { priority: { from: 'P1', to: 'P2' } } });
  await show(<Thread ticket={ticketOf([changed, later], { rights: [...rights] })} now={AT} />);
  expect(screen.queryByRole('button', { name: 'Put it back' })).toBeNull();
  await show(<Thread ticket={ticketOf([changed], { rights: ['read'] })} now={AT} />);
  expect(screen.queryByRole('button', { name: 'Put it back' })).toBeNull();
});

test('it is said why a rule fired, and what kept another from firing', async () => {
  const asked = (why: RuleOnTicket['asked'][number]['why']): RuleOnTicket['asked'] => [
    { entryId: '7', at: AT, kind: 'received', why },
  ];
  const explained: RuleOnTicket[] = [
    {
      ...{ rule: { ...CARDS, isOn: true }, asked: asked({ fired: true }) },
      fired: [
        {
          at: AT,
          did: [
            { do: 'give', problem: null },
            { do: 'set', problem: 'moveNotAllowed' },
          ],
        },
      ],
    },
    {
      ...{ rule: { id: 'urgent', name: both('Urgent'), isOn: true }, fired: [] },
      asked: asked({
        ...{ fired: false, because: 'condition' },
        unmet: { part: { field: 'priority', op: 'is', value: 'P1' }, value: 'P3' },
      }),
    },
    {
      ...{ rule: { id: 'off', name: both('Off'), isOn: false }, fired: [] },
      asked: asked({ fired: false, because: 'off' }),
    },
  ];
  server().on(api.rules.ofTicket, explained).on(api.people.teams, []);
  server().on(api.catalogue.list, []).on(api.teams.sites, []);
  await show(<RulesOf number={1204} />);
  fireEvent.click(screen.getByRole('button', { name: 'Rules: why, why not?' }));
  expect(
    await screen.findByText(/^Fired .*: give it on, change a field \(could not: That is not/),
  ).toBeTruthy();
  expect(
    screen.getByText(/when it has come: did not fire: Priority is P1 did not hold; it was P3$/),
  ).toBeTruthy();
  expect(screen.getByText(/when it has come: it is switched off$/)).toBeTruthy();
});
