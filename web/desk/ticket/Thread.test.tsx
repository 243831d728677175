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
    const entries = [entryOf('slipped', { data: data }), entryOf('taken')];
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

describe('what was changed', () => {
  const changed = entryOf('changed', {
    actor: { id: 'rui', name: 'Rui Bastos', goesFirst: false },
    changes: {
      priority: { from: 'P3', to: 'P2' },
      place: { from: '', to: 'Gate 2' },
      progressId: { from: { en: 'Ordered', pt: 'Encomendado' }, to: null },
      dueAt: { from: null, to: AT },
      dueDate: { from: null, to: '2026-12-24' },
      estimateMinutes: { from: 30, to: 90 },
      urgency: { from: 'slowsWork', to: 'stopsWork' },
      answers: { from: { a: 1 }, to: { a: 2 } },
    },
  });

  test('is told field by field, from what to what, in the reader’s words', async () => {
    await show(<Thread ticket={ticketOf([changed])} now={AT} />);
    const said = screen.getByText(/Rui Bastos changed/).textContent;
    expect(said).toContain(
      'Priority from “P3” to “P2”; Where to “Gate 2”; How far it is: “Ordered” was taken away',
    );
    expect(said).toContain('Due by hand to “Thu, 24 Dec 2026”; Estimate from “30 min” to “1 h 30 min”');
    expect(said).toMatch(/Answers$/);
    // The instant at which the day ends is no fact of its own, and ids are nobody's words.
    expect(said.match(/Due by hand/g)).toHaveLength(1);
    expect(said).not.toMatch(/stopsWork|\[object/);
  });

  test('also in Portuguese', async () => {
    await show(<Thread ticket={ticketOf([changed])} now={AT} />, { language: 'pt' });
    expect(screen.getByText(/mudou Prioridade de “P3” para “P2”/)).toBeTruthy();
  });
});
