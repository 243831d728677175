import { jest } from '@jest/globals';
import { screen } from '@testing-library/react';
import { AT, entryOf, ticketOf } from '../../testing/ticket';
import { show } from '../../testing/show';
import { Thread } from './Thread';

// What cannot be read is told to the browser's log.
beforeEach(() => void jest.spyOn(console, 'warn').mockImplementation(() => undefined));
afterEach(() => jest.restoreAllMocks());

const contract = { en: 'Contract', pt: 'Contrato' };

describe('what happened stands there, whatever an entry carries', () => {
  test('a step that an outside address answered with values', async () => {
    const data = { name: contract, words: 'Signed', fields: { contractNumber: 'B-7' } };
    await show(<Thread ticket={ticketOf([entryOf('stepDone', { data })])} now={AT} />);
    expect(screen.getByText('Done: Contract. Signed')).toBeTruthy();
  });

  test.each<[string, object]>([
    ['a text where a list is expected', { name: contract, fields: 'all', driving: 'none' }],
    ['a number where texts are expected', { name: 7, driving: 3, words: 5 }],
    ['nothing where texts are expected', { name: null, driving: [null], fields: [null] }],
  ])('%s takes no page down', async (_, data) => {
    const entries = [entryOf('slipped', { data: data as never }), entryOf('taken')];
    await show(<Thread ticket={ticketOf(entries)} now={AT} />);
    expect(screen.getAllByRole('listitem')).toHaveLength(2);
    expect(screen.getByText(/took it/)).toBeTruthy();
  });

  test('one that cannot be read says so, in both languages', async () => {
    const broken = entryOf('slipped', { data: { driving: [null] as never } });
    await show(<Thread ticket={ticketOf([broken])} now={AT} />);
    expect(screen.getByText(/this page cannot show/)).toBeTruthy();
    await show(<Thread ticket={ticketOf([broken])} now={AT} />, { language: 'pt' });
    expect(screen.getByText(/não consegue mostrar/)).toBeTruthy();
  });
});
