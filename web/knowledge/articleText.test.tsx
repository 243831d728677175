import { screen } from '@testing-library/react';
import { show } from '../testing/show';
import { ArticleText } from './ArticleText';

test('what stands below an article comes with the text in its form, and does not move afterwards', async () => {
  await show(
    <ArticleText body="Press **both buttons**.">
      <button type="button">That was it</button>
    </ArticleText>,
  );
  const isRaw = screen.queryByText('Press **both buttons**.') !== null;
  expect(screen.queryByRole('button', { name: 'That was it' }) === null).toBe(isRaw);
  await screen.findByRole('button', { name: 'That was it' });
  expect(screen.getByText('both buttons').tagName).toBe('STRONG');
});
