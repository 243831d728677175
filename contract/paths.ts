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
  },
  calendars: {
    list: { method: 'get', path: '/calendars' },
    create: { method: 'post', path: '/calendars' },
    update: { method: 'put', path: '/calendars/:id' },
    remove: { method: 'delete', path: '/calendars/:id' },
    effect: { method: 'post', path: '/calendars/:id/effect' },
    read: { method: 'post', path: '/calendars/:id/icalendar' },
    holidayPlaces: { method: 'get', path: '/holidays/places' },
    holidays: { method: 'get', path: '/holidays' },
  },
  teams: {
    create: { method: 'post', path: '/teams' },
    update: { method: 'patch', path: '/teams/:id' },
    sites: { method: 'get', path: '/sites' },
    updateSite: { method: 'patch', path: '/sites/:id' },
  },
  targets: {
    list: { method: 'get', path: '/targets' },
    update: { method: 'patch', path: '/targets/:id' },
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
  absences: {
    mine: { method: 'get', path: '/my/absences' },
    add: { method: 'post', path: '/my/absences' },
    remove: { method: 'delete', path: '/my/absences/:id' },
  },
  plans: {
    move: { method: 'post', path: '/tickets/:number/steps/:stepId/moves' },
    answer: { method: 'post', path: '/step-answers/:token' },
  },
  notifications: {
    list: { method: 'get', path: '/notifications' },
    read: { method: 'post', path: '/notifications/read' },
  },
} as const;
