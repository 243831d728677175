import { fireEvent, screen, waitFor } from '@testing-library/react';
import { api } from '../../contract';
import type { OwnThing, ThingOnTicket } from '../../contract/estate';
import { MyThings } from '../ask/things/MyThings';
import { OnHome } from '../ask/things/OnHome';
import { ThingsOf } from '../desk/ticket/ThingsOf';
import { Thread } from '../desk/ticket/Thread';
import { refuse, standIn } from '../testing/server';
import { show } from '../testing/show';
import { both, card, DAY, KEEPER, NOW, page, ref } from '../testing/things';
import { AT, entryOf, ticketOf } from '../testing/ticket';

/** Things in the hands of people, and beside tickets. */
const server = standIn();
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));
const fill = (label: string | RegExp, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('in Ask', () => {
  const own = (given: Partial<OwnThing> = {}): OwnThing => ({
    ...{ id: 'L-1', name: 'Laptop L-1', kind: both('Laptop'), tag: 'L-1', model: 'Tern 14', serial: '' },
    ...{
      state: 'inUse',
      lentUntil: null,
      warrantyUntil: null,
      isAsked: false,
      claim: null,
      handedAt: NOW - DAY,
    },
    openTickets: [],
    ...given,
  });

  test('what was handed over is asked about on the first page, and answered in one click', async () => {
    server()
      .on(api.estate.mine, [own({ isAsked: true })])
      .on(api.estate.say, { number: null });
    await show(<OnHome />);
    expect(await screen.findByText('Do you have Laptop L-1?')).toBeTruthy();
    press('Yes, I have it');
    await waitFor(() => expect(server().callsOf(api.estate.say)[0]!.body).toMatchObject({ say: 'have' }));
    expect(await screen.findByText('Noted, thank you.')).toBeTruthy();
  });

  test('what is broken becomes a ticket; what was written stays where sending fails', async () => {
    server().on(api.estate.mine, [own()]).on(api.estate.say, refuse(429, 'tooManyCalls'));
    await show(<MyThings />, { language: 'en' });
    fireEvent.click(await screen.findByRole('button', { name: 'It is broken' }));
    fill('What happened to Laptop L-1?', 'The lid');
    press('Send');
    expect(await screen.findByText(/^Too many requests at once/)).toBeTruthy();
    expect(screen.getByDisplayValue('The lid')).toBeTruthy();
    server().on(api.estate.say, { number: 1_204 });
    press('Send');
    expect(await screen.findByText('Sent. It is number 1204.')).toBeTruthy();
    expect(server().callsOf(api.estate.say).at(-1)!.body).toEqual({ say: 'broken', words: 'The lid' });
  });

  test('who has nothing reads that, in Portuguese too; the first page says nothing of it', async () => {
    server().on(api.estate.mine, []);
    await show(<MyThings />, { language: 'pt' });
    expect(await screen.findByText('Que se saiba, não tem nada nosso.')).toBeTruthy();
    const { container } = await show(<OnHome />);
    await waitFor(() => expect(server().callsOf(api.estate.mine).length).toBeGreaterThan(1));
    expect(container.querySelector('section')).toBeNull();
  });
});

describe('beside a ticket', () => {
  const onTicket = (given: Partial<ThingOnTicket> = {}): ThingOnTicket => ({
    ...card('L-1', { warrantyUntil: '2020-01-01' }),
    ...{ how: 'about', isAnswer: false, contract: 'Costa Cable', standing: 'up', needs: [ref('lineA')] },
    ...{ neededBy: [], downCount: 3, tickets: [], ticketCount: 0 },
    ...given,
  });
  const open = async (things: ThingOnTicket[], rights: string[] = ['read', 'readNotes', 'note']) => {
    server()
      .on(api.estate.ofTicket, things)
      .on(api.estate.list, page([card('L-5', { name: 'Laptop L-5' })]));
    await show(<ThingsOf ticket={ticketOf([], { rights } as never)} />, { me: KEEPER });
  };

  test('says who has it, whether it is covered, what it hangs on, and what was before', async () => {
    const tickets = [
      { number: 7, title: 'Lid', state: 'closed', at: NOW, how: 'about' },
    ] as ThingOnTicket['tickets'];
    await open([onTicket({ tickets, ticketCount: 4 })]);
    expect(await screen.findByText('Tomás Veiga')).toBeTruthy();
    expect(screen.getByText(/over since 1 Jan 2020/)).toBeTruthy();
    expect(screen.getByText('needs lineA')).toBeTruthy();
    expect(screen.getByText('3 things hang on it alone')).toBeTruthy();
    expect(screen.getByText('4 other tickets')).toBeTruthy();
  });

  test('a thing is named, made the cause and taken off; one of the form is not', async () => {
    server().on(api.estate.tie, { ok: true }).on(api.estate.untie, { ok: true });
    await open([onTicket(), onTicket({ id: 'L-2', name: 'Laptop L-2', isAnswer: true })]);
    fireEvent.click((await screen.findAllByRole('button', { name: 'It is the cause' }))[0]!);
    await waitFor(() =>
      expect(server().callsOf(api.estate.tie)[0]!.body).toEqual({ thingId: 'L-1', how: 'cause' }),
    );
    expect(screen.queryByRole('button', { name: 'Take Laptop L-2 off' })).toBeNull();
    press('Take Laptop L-1 off');
    await waitFor(() => expect(server().callsOf(api.estate.untie)[0]!.params.thingId).toBe('L-1'));
    fireEvent.change(screen.getByRole('combobox'), { target: { value: 'L-5' } });
    fireEvent.click(await screen.findByText(/^Laptop L-5, Laptop/));
    await waitFor(() =>
      expect(server().callsOf(api.estate.tie).at(-1)!.body).toEqual({ thingId: 'L-5', how: 'about' }),
    );
  });

  test('what was named stands in the ticket’s history', async () => {
    const tied = entryOf('thingTied', { data: { thingId: 'L-1', name: 'Laptop L-1', how: 'about' } });
    await show(<Thread ticket={ticketOf([tied])} now={AT} />);
    expect(screen.getByText(/named a thing: Laptop L-1$/)).toBeTruthy();
  });

  test('who only reads it sees no field, and nothing where there is nothing', async () => {
    await open([], ['read', 'readNotes']);
    await waitFor(() => expect(server().callsOf(api.estate.ofTicket)).toHaveLength(1));
    expect(screen.queryByText('Things')).toBeNull();
  });
});
