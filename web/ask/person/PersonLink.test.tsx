import { act, screen, waitFor } from '@testing-library/react';
import type { AnswerOf } from '../../../contract/endpoint';
import { api } from '../../../contract';
import { keepRead } from '../../talk/unread';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { standInStreams } from '../../testing/stream';
import { PersonLink } from './PersonLink';

const server = standIn();
const streams = standInStreams();
const LIVE = '/api/v1/conversations/live';
type Mine = AnswerOf<typeof api.conversations.mine>;
const NONE: Mine = { id: null, agent: null, said: 0, hasLines: true };
const open = async (mine: Partial<Mine>, address = '/ask/past', language: 'en' | 'pt' = 'en') => {
  server().on(api.conversations.mine, { ...NONE, ...mine });
  document.title = 'Listo';
  const shown = await show(<PersonLink />, { address, language });
  await waitFor(() => expect(server().callsOf(api.conversations.mine).length).toBeGreaterThan(0));
  await act(async () => Promise.resolve());
  return shown;
};
const link = () => screen.queryByRole('link')?.textContent;

test('there is a way to a person on every page of Ask, and on no other', async () => {
  await open({});
  expect(await screen.findByRole('link', { name: 'Talk to a person' })).toBeTruthy();
  await open({}, '/desk/today');
  expect(link()).toBeUndefined();
  await open({}, '/ask/person');
  expect(link()).toBeUndefined();
});

test('where no line is set up, nobody is sent there', async () => {
  await open({ hasLines: false });
  expect(link()).toBeUndefined();
});

test('on another page one sees who has written and how often, until one has read it', async () => {
  await open({ id: 'c1', agent: 'Bia Rocha', said: 2 });
  expect(await screen.findByRole('link', { name: 'Bia Rocha has written · 2' })).toBeTruthy();
  await waitFor(() => expect(document.title).toBe('(2) Listo'));
  keepRead('c1', 1);
  await open({ id: 'c1', agent: 'Bia Rocha', said: 2 }, '/ask/past', 'pt');
  expect(await screen.findByRole('link', { name: 'Bia Rocha escreveu-lhe' })).toBeTruthy();
  keepRead('c1', 2);
  await open({ id: 'c1', agent: 'Bia Rocha', said: 2 });
  expect(await screen.findByRole('link', { name: 'Your conversation' })).toBeTruthy();
  expect(document.title).toBe('Listo');
});

test('it is said at once when it is written; without a conversation nothing is followed', async () => {
  await open({ id: 'c3', agent: 'Bia Rocha' });
  await waitFor(() => expect(streams.addresses()).toEqual([LIVE]));
  server().on(api.conversations.mine, { ...NONE, id: 'c3', agent: 'Bia Rocha', said: 1 });
  act(() => streams.say(LIVE, { id: 'c3', by: 'bia', isWords: true, side: 'person' }));
  expect(await screen.findByRole('link', { name: 'Bia Rocha has written' })).toBeTruthy();
  await open({});
  await screen.findByRole('link', { name: 'Talk to a person' });
  expect(streams.addresses()).toEqual([]);
});

test('what was read once stays read', () => {
  keepRead('c2', 3);
  keepRead('c2', 1);
  expect(localStorage.getItem('listo-talk-read:c2')).toBe('3');
});
