import { moveProgress, type ProgressLabel } from './index';

const labelOf = (id: string, isFinished = false): ProgressLabel => ({
  id,
  name: { en: id, pt: id },
  isFinished,
});
const labels = [labelOf('ordered'), labelOf('delivered', true), labelOf('lost', true)];

test('a label that counts as finished sets the mark, another such one keeps it, and taking it back takes the mark back', () => {
  const none = { progressId: null, progressFinishedAt: null };
  const ordered = moveProgress(labels, none, 'ordered', 1);
  expect(ordered).toEqual({ progressId: 'ordered', progressFinishedAt: null });
  const delivered = moveProgress(labels, ordered, 'delivered', 2);
  expect(delivered).toEqual({ progressId: 'delivered', progressFinishedAt: 2 });
  expect(moveProgress(labels, delivered, 'lost', 3)).toEqual({ progressId: 'lost', progressFinishedAt: 2 });
  expect(moveProgress(labels, delivered, 'ordered', 3)).toEqual({
    progressId: 'ordered',
    progressFinishedAt: null,
  });
  expect(moveProgress(labels, delivered, null, 3)).toEqual(none);
});
