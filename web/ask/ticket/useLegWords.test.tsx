import { screen } from '@testing-library/react';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { useLegWords } from './useLegWords';

standIn();

type Steps = { state: 'active' | 'done' | 'waiting'; kind: 'task' | 'approval' }[];
function Said({ steps, approvers }: { steps: Steps; approvers: string[] }) {
  return <p>{useLegWords()({ name: { en: 'Prepare', pt: 'Preparar' }, steps }, approvers)}</p>;
}
const work = { state: 'active', kind: 'task' } as const;
const agreeing = { state: 'active', kind: 'approval' } as const;

test.each<[string, 'en' | 'pt', Steps, string[], string]>([
  ['work alone is under way', 'en', [work], [], 'Under way: Prepare.'],
  ['while only agreeing goes on, who has to', 'en', [agreeing], ['Ana Reis'], 'Ana Reis has to agree first.'],
  [
    'beside work both are said',
    'en',
    [work, agreeing],
    ['Ana Reis'],
    'Under way: Prepare. Ana Reis has yet to agree.',
  ],
  ['in Portuguese too', 'pt', [agreeing], ['Ana Reis'], 'Ana Reis tem de concordar primeiro.'],
  [
    'what was agreed is said no more',
    'en',
    [{ state: 'done', kind: 'approval' }, work],
    ['Ana Reis'],
    'Under way: Prepare.',
  ],
])('%s', async (_, language, steps, approvers, said) => {
  await show(<Said {...{ steps, approvers }} />, { language });
  await screen.findByText(said);
});
