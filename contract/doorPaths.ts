/** Where calls about other programs are answered. */
export const doorPaths = {
  programs: {
    list: { method: 'get', path: '/workshop/programs' },
    create: { method: 'post', path: '/workshop/programs' },
    update: { method: 'put', path: '/workshop/programs/:id' },
    createKey: { method: 'post', path: '/workshop/programs/:id/keys' },
    revokeKey: { method: 'delete', path: '/workshop/programs/:id/keys/:keyId' },
    self: { method: 'get', path: '/program' },
  },
} as const;
