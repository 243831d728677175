import { countedOtherwise, finishedAt, moveProgress, type ProgressLabel } from './index';

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

test('labels that are made to count, no longer count, or are gone count otherwise; a new name alone changes nothing', () => {
  const after = [
    labelOf('ordered', true),
    { ...labelOf('delivered', true), name: { en: 'brought', pt: 'trazido' } },
    labelOf('asked'),
  ];
  expect(countedOtherwise(labels, after).sort()).toEqual(['lost', 'ordered']);
  expect(countedOtherwise(labels, labels)).toEqual([]);
});

test.each([
  [null, null, null],
  [5, null, 5],
  [null, 7, 7],
  [5, 7, 5],
  [9, 7, 7],
])('by a label at %s and done at %s it is finished at %s', (progressFinishedAt, resolvedAt, expected) => {
  expect(finishedAt({ progressFinishedAt, resolvedAt })).toBe(expected);
});
