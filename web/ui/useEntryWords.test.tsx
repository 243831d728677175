import { jest } from '@jest/globals';
import { screen } from '@testing-library/react';

import type { Entry } from '../../contract/tickets';
import { show } from '../testing/show';
import { entryOf, TOMAS } from '../testing/ticket';
import { useEntryWords } from './useEntryWords';

function Said({ entries }: { entries: Entry[] }) {
  const wordsOf = useEntryWords('nobody');
  return (
    <ul>
      {entries.map((entry) => (
        <li key={entry.id}>{wordsOf(entry)}</li>
      ))}
    </ul>
  );
}

describe('an entry in words', () => {
  const missing = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  afterEach(() => missing.mockReset());
  afterAll(() => missing.mockRestore());

  test.each([
    ['decided', { decision: 'approve', outcome: 'approved', words: '' }],
    ['decided', { decision: 'approve', outcome: 'open', words: '' }],
    ['decided', { decision: 'decline', outcome: 'declined', words: 'Too dear.' }],
  ] as const)('%s says a decision without words that are missing: %j', async (type, data) => {
    await show(<Said entries={[entryOf(type, { actor: TOMAS, data })]} />);
    expect(screen.getByRole('listitem').textContent).toContain('Tomás Veiga');
    expect(missing.mock.calls).toEqual([]);
  });

  test('of a work that ended how it ended', async () => {
    await show(<Said entries={[entryOf('workEnded', { actor: TOMAS, data: { outcome: 'takenBack' } })]} />);
    expect(screen.getByRole('listitem').textContent).toBe('Tomás Veiga ended the work: taken back');
  });
});
