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
  signOn: {
    get: { method: 'get', path: '/workshop/sign-on' },
    set: { method: 'put', path: '/workshop/sign-on' },
    create: { method: 'post', path: '/workshop/sign-on/providers' },
    update: { method: 'put', path: '/workshop/sign-on/providers/:id' },
    remove: { method: 'delete', path: '/workshop/sign-on/providers/:id' },
    check: { method: 'post', path: '/workshop/sign-on/providers/:id/checks' },
  },
  webhooks: {
    list: { method: 'get', path: '/workshop/programs/:id/webhooks' },
    create: { method: 'post', path: '/workshop/programs/:id/webhooks' },
    update: { method: 'put', path: '/workshop/webhooks/:id' },
    switch: { method: 'put', path: '/workshop/webhooks/:id/state' },
    remove: { method: 'delete', path: '/workshop/webhooks/:id' },
    try: { method: 'post', path: '/workshop/webhooks/:id/trials' },
    deliveries: { method: 'get', path: '/workshop/webhooks/:id/deliveries' },
    sendAllAgain: { method: 'post', path: '/workshop/webhooks/:id/deliveries' },
    delivery: { method: 'get', path: '/workshop/deliveries/:id' },
    sendAgain: { method: 'post', path: '/workshop/deliveries/:id' },
  },
  records: {
    list: { method: 'get', path: '/records' },
    ticket: { method: 'get', path: '/records/tickets/:number' },
    seals: { method: 'get', path: '/records/seals' },
    check: { method: 'post', path: '/records/seals/:id/checks' },
  },
  privacy: {
    counts: { method: 'get', path: '/workshop/people/:id/erasure' },
    erase: { method: 'post', path: '/workshop/people/:id/erasure' },
  },
  running: {
    get: { method: 'get', path: '/workshop/running' },
  },
  calls: {
    list: { method: 'get', path: '/workshop/calls' },
  },
} as const;
