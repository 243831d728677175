/** Where calls about figures are answered. */
export const measurePaths = {
  chart: { method: 'post', path: '/measures/chart' },
  behind: { method: 'post', path: '/measures/behind' },
  boards: { method: 'get', path: '/measures/boards' },
  createBoard: { method: 'post', path: '/measures/boards' },
  board: { method: 'get', path: '/measures/boards/:id' },
  updateBoard: { method: 'put', path: '/measures/boards/:id' },
  removeBoard: { method: 'delete', path: '/measures/boards/:id' },
  gatherAnew: { method: 'post', path: '/measures/gathering' },
} as const;
