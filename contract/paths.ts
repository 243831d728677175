/** Where and how each endpoint is called: all that a browser needs to know of a contract at run time. */
export const paths = {
  session: {
    get: { method: 'get', path: '/session' },
    signIn: { method: 'post', path: '/session' },
    signInDemo: { method: 'post', path: '/session/demo' },
    signOut: { method: 'delete', path: '/session' },
    demoPeople: { method: 'get', path: '/demo/people' },
    list: { method: 'get', path: '/sessions' },
    end: { method: 'delete', path: '/sessions/:id' },
    setLanguage: { method: 'put', path: '/me/language' },
    setUp: { method: 'post', path: '/setup' },
  },
  catalogue: {
    list: { method: 'get', path: '/services' },
    get: { method: 'get', path: '/services/:id' },
    search: { method: 'get', path: '/ask/search' },
  },
  people: {
    search: { method: 'get', path: '/people' },
    teams: { method: 'get', path: '/teams' },
    calendars: { method: 'get', path: '/calendars' },
  },
  files: {
    upload: { method: 'post', path: '/files' },
    remove: { method: 'delete', path: '/files/:id' },
  },
  tickets: {
    create: { method: 'post', path: '/tickets' },
    get: { method: 'get', path: '/tickets/:number' },
    mine: { method: 'get', path: '/my/tickets' },
    change: { method: 'patch', path: '/tickets/:number' },
    move: { method: 'post', path: '/tickets/:number/moves' },
    write: { method: 'post', path: '/tickets/:number/messages' },
    follow: { method: 'put', path: '/tickets/:number/followers' },
    unfollow: { method: 'delete', path: '/tickets/:number/followers' },
    worklist: { method: 'get', path: '/worklists/:name' },
    find: { method: 'get', path: '/find' },
  },
  clocks: {
    reckoning: { method: 'get', path: '/tickets/:number/clocks/:targetId' },
  },
  approvals: {
    mine: { method: 'get', path: '/my/asks' },
    decide: { method: 'post', path: '/asks/:id/decision' },
  },
  notifications: {
    list: { method: 'get', path: '/notifications' },
    read: { method: 'post', path: '/notifications/read' },
  },
} as const;
