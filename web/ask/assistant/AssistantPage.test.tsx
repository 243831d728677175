import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { api } from '../../../contract';
import type { TalkView, TurnView } from '../../../contract/assistant';
import { AWAY, refuse, standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { AT } from '../../testing/ticket';
import { AssistantPage } from './AssistantPage';

const server = standIn();
// What it answers is brought into sight.
beforeAll(() => {
  Element.prototype.scrollIntoView = () => undefined;
});

let place = 0;
const said = (turn: Partial<TurnView> & { say: string }): TurnView => ({
  ...{ place: ++place, at: AT, by: 'assistant' },
  ...turn,
});
const own = (text: string): TurnView => said({ by: 'person', say: 'words', text });
const greeting = said({ say: 'greeting', text: 'Bia' });
const talk = (turns: TurnView[], given: Partial<TalkView> = {}): TalkView => ({
  ...{ id: 'one', phase: 'listen', outcome: null, matter: null, serviceId: null, fields: [], rating: null },
  ...{ title: null, closing: null, turns },
  ...given,
});
const KIOSK = { id: 'kiosk', name: 'A kiosk is out of paper' };
const BADGE = { id: 'badge', name: 'A lost badge' };

/** A page on which nothing has been said yet. */
const begin = (first: TalkView = talk([greeting])) =>
  server().on(api.assistant.start, first).on(api.assistant.mine, first);

/** A conversation in which both matters have been named. */
function namedBoth() {
  return server()
    .on(api.assistant.mine, ({ params }) => talk([greeting], { id: params.id }))
    .on(api.assistant.start, ({ body }) =>
      body.isAnew ? talk([greeting], { id: 'two' }) : talk([greeting, own('paper, and my badge')]),
    )
    .on(api.assistant.say, ({ params, body }) => {
      if (params.id === 'two')
        return talk([greeting, own('A lost badge'), said({ say: 'confirm', choices: [BADGE] })], {
          id: 'two',
        });
      return body.input.kind === 'pick'
        ? talk(
            [
              ...[greeting, own('paper, and my badge'), own(KIOSK.name)],
              ...[said({ say: 'form', serviceId: 'kiosk' }), said({ say: 'other', choices: [BADGE] })],
            ],
            { phase: 'ended', outcome: 'form', matter: KIOSK.name },
          )
        : talk([greeting, own('paper, and my badge'), said({ say: 'both', choices: [KIOSK, BADGE] })], {
            phase: 'choose',
          });
    });
}

test('two matters in one message: one is dealt with, then the other in a conversation of its own', async () => {
  const user = userEvent.setup({ delay: null });
  namedBoth();
  await show(<AssistantPage />, { address: '/ask/assistant' });
  await user.type(await screen.findByRole('textbox', { name: 'Write here' }), 'paper, and my badge');
  await user.click(screen.getByRole('button', { name: 'Send' }));
  expect(await screen.findByText('I read two things in this. With which shall we begin?')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: KIOSK.name }));
  expect(
    await screen.findByText('You also wrote about something else. Shall we go on with it?'),
  ).toBeTruthy();
  await user.click(screen.getByRole('button', { name: BADGE.name }));
  expect(await screen.findByText('Is it this?', { exact: false })).toBeTruthy();
  expect(
    server()
      .callsOf(api.assistant.say)
      .map(({ params, body }) => [params.id, body.input]),
  ).toEqual([
    ['one', { kind: 'words', text: 'paper, and my badge' }],
    ['one', { kind: 'pick', id: 'kiosk' }],
    ['two', { kind: 'words', text: 'A lost badge' }],
  ]);
});

test('in Portuguese it asks about both as well, and a courtesy is answered', async () => {
  begin(
    talk([
      greeting,
      own('obrigado'),
      said({ say: 'welcome' }),
      said({ say: 'allSaid' }),
      said({ say: 'both', choices: [KIOSK, BADGE] }),
    ]),
  );
  await show(<AssistantPage />, { language: 'pt' });
  expect(await screen.findByText('De nada. Precisa de mais alguma coisa?')).toBeTruthy();
  expect(screen.getByText('É tudo o que há a fazer. Volte a escrever quando quiser.')).toBeTruthy();
  expect(screen.getByText('Leio aqui duas coisas. Por qual começamos?')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Nenhum destes' })).toBeTruthy();
});

test('words that could not be sent stay, and a second try under its own key sends them', async () => {
  const user = userEvent.setup({ delay: null });
  begin().on(api.assistant.say, AWAY);
  await show(<AssistantPage />);
  const field = await screen.findByRole('textbox', { name: 'Write here' });
  await user.type(field, 'The printer is dead');
  await user.click(screen.getByRole('button', { name: 'Send' }));
  expect(await screen.findByRole('alert')).toBeTruthy();
  expect(field).toHaveProperty('value', 'The printer is dead');
  server().on(
    api.assistant.say,
    talk([greeting, own('The printer is dead'), said({ say: 'confirm', choices: [KIOSK] })], {
      phase: 'confirm',
    }),
  );
  await user.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(field).toHaveProperty('value', ''));
  const keys = server()
    .callsOf(api.assistant.say)
    .map(({ key }) => key);
  expect(new Set(keys).size).toBe(keys.length);
});

test('nothing is sent that says nothing, and a person can be had at any moment', async () => {
  const user = userEvent.setup({ delay: null });
  begin().on(
    api.assistant.say,
    talk([greeting, said({ say: 'ticket', number: 7, isHandOver: true })], { phase: 'ended' }),
  );
  await show(<AssistantPage />);
  expect(await screen.findByRole('button', { name: 'Send' })).toHaveProperty('disabled', true);
  await user.click(screen.getByRole('button', { name: 'Talk to someone' }));
  expect(await screen.findByText(/A person takes over/)).toBeTruthy();
  expect(screen.queryByRole('textbox', { name: 'Write here' })).toBeNull();
  expect(server().callsOf(api.assistant.say)[0]!.body.input).toEqual({ kind: 'person' });
});

test('where there is no assistant, the page is not there; where it cannot be reached, one tries again', async () => {
  const user = userEvent.setup({ delay: null });
  server().on(api.assistant.start, refuse(404, 'notFound'));
  await show(<AssistantPage />);
  expect(await screen.findByText(/nothing at this address/i)).toBeTruthy();
  server().on(api.assistant.start, AWAY);
  await show(<AssistantPage />);
  const again = await screen.findByRole('button', { name: 'Try again' });
  begin();
  await user.click(again);
  expect(await screen.findByRole('textbox', { name: 'Write here' })).toBeTruthy();
});
