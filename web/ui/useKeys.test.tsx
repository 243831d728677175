import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useKeys } from './useKeys';

const done: string[] = [];
function Page() {
  useKeys({ h: () => done.push('hold'), escape: () => done.push('back') });
  useKeys({ a: () => done.push('answer') });
  return (
    <>
      <textarea aria-label="Answer" />
      <button type="button">Send</button>
    </>
  );
}

test('keys act where nobody types; the first Escape leaves a field with its words, the second one is the page’s', async () => {
  const user = userEvent.setup({ delay: null });
  render(<Page />);
  await user.keyboard('a');
  await user.click(screen.getByRole('textbox', { name: 'Answer' }));
  await user.keyboard('oh');
  expect(done).toEqual(['answer']);
  await user.keyboard('{Escape}');
  expect(done).toEqual(['answer']);
  expect(document.activeElement).toBe(document.body);
  await user.keyboard('h{Escape}');
  expect(done).toEqual(['answer', 'hold', 'back']);
  expect(screen.getByRole('textbox', { name: 'Answer' })).toHaveProperty('value', 'oh');
});
