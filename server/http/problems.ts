import type { Problem } from '../../contract/problem';

type ProblemKind = { status: number; title: string; wayOut: string };

/** Every error that the server answers with. A slug is never used again for something else. */
export const PROBLEMS = {
  notSignedIn: {
    status: 401,
    title: 'Not signed in',
    wayOut: 'Sign in, then do it again. What you typed is kept.',
  },
  wrongNameOrPassword: { status: 401, title: 'Wrong name or password', wayOut: 'Check both and try again.' },
  codeNeeded: {
    status: 401,
    title: 'A code is needed too',
    wayOut: 'Give the code that your program for codes shows now, or one of your spare codes.',
  },
  wrongFactorCode: {
    status: 401,
    title: 'Not the code of now',
    wayOut: 'Wait for the next code and give that one; each works once.',
  },
  hasFactor: {
    status: 409,
    title: 'There is a second factor already',
    wayOut: 'Take that one away first.',
  },
  lastWayIn: {
    status: 409,
    title: 'Nobody could sign in any more',
    wayOut: 'Switch a provider on first, or let people have passwords again.',
  },
  emergencyPassword: {
    status: 409,
    title: 'The one password for an emergency is theirs',
    wayOut: 'Give it to somebody else first, in Workshop > Signing in.',
  },
  passwordsOff: {
    status: 403,
    title: 'No passwords here',
    wayOut: 'Sign in at your organisation’s provider.',
  },
  invitationOver: {
    status: 409,
    title: 'This link lets nobody in any more',
    wayOut: 'Ask whoever invited you for a new one.',
  },
  tooManyTries: {
    status: 429,
    title: 'Too many tries',
    wayOut: 'Wait a quarter of an hour, then try again.',
  },
  forbidden: { status: 403, title: 'Not yours to do', wayOut: 'Ask someone of the team that holds it.' },
  otherSite: { status: 403, title: 'Came from another site', wayOut: 'Open Listo itself and do it there.' },
  badKey: {
    status: 401,
    title: 'Not a key that is known',
    wayOut:
      'Send "Authorization: Bearer" with a whole key. An administrator makes them in Workshop > Programs.',
  },
  keyRevoked: {
    status: 401,
    title: 'This key was taken back',
    wayOut: 'Use the account’s other key, or ask for one.',
  },
  keyEnded: {
    status: 401,
    title: 'This key has ended',
    wayOut: 'Use the account’s other key, or ask for one.',
  },
  programOff: {
    status: 403,
    title: 'This program is switched off',
    wayOut: 'Ask an administrator of Listo.',
  },
  programEnded: {
    status: 403,
    title: 'This program’s account has ended',
    wayOut: 'Ask an administrator of Listo for a later end.',
  },
  keyNotFromThere: {
    status: 403,
    title: 'Not from this address',
    wayOut: 'The account names where its keys may be used. Call from there, or have the address added.',
  },
  readsOnly: {
    status: 403,
    title: 'This program only reads',
    wayOut: 'Ask an administrator of Listo to let it change something.',
  },
  forPeopleOnly: {
    status: 403,
    title: 'About a person, and a program is none',
    wayOut: 'Leave this call out: a program has no password, no absence and nothing of its own.',
  },
  forProgramsOnly: { status: 403, title: 'About the key of a program', wayOut: 'Call it with a key.' },
  stillHere: {
    status: 409,
    title: 'Still here',
    wayOut:
      'Note first that they leave, so that what waits for them is handed over. Then they can be erased.',
  },
  alreadyErased: {
    status: 409,
    title: 'Erased already',
    wayOut: 'Nothing more is known of them. Leave it so.',
  },
  webhookNotTried: {
    status: 409,
    title: 'Not tried yet',
    wayOut: 'Send an example first. Once its receiver has taken one it can be switched on.',
  },
  twoKeys: {
    status: 409,
    title: 'Two keys work already',
    wayOut: 'Take one of them back first.',
  },
  notFound: { status: 404, title: 'Not there', wayOut: 'Check the address, or look for it in Find.' },
  fieldsNotValid: {
    status: 422,
    title: 'Some fields do not fit',
    wayOut: 'Mend the fields named and send again.',
  },
  moveNotAllowed: {
    status: 409,
    title: 'Not possible now',
    wayOut: 'Reload to see what the ticket allows now.',
  },
  notForRequester: {
    status: 409,
    title: 'Not for the requester to read',
    wayOut: 'Choose an article that the requester may read, or write the answer yourself.',
  },
  noProblemService: {
    status: 409,
    title: 'Nothing to open a problem under',
    wayOut: 'Have an administrator publish a service for the causes of incidents, in Workshop > Services.',
  },
  tooManyFacts: {
    status: 422,
    title: 'Too much for one figure',
    wayOut: 'Over a million values would have to be read. Take a shorter stretch or narrow it.',
  },
  notYourPeople: {
    status: 403,
    title: 'Not your people’s figures',
    wayOut: 'Figures of single people are for themselves and for who leads them. Take the team instead.',
  },
  confidentialShared: {
    status: 422,
    title: 'About a team that works in confidence',
    wayOut:
      'A board that asks for such a team can be shared with that team alone. Share it with nobody else, or leave the team out.',
  },
  tooManyAtOnce: {
    status: 422,
    title: 'Too many at once',
    wayOut: 'At most 5,000 are changed at once. Narrow the list and do it in parts; nothing was changed.',
  },
  stale: { status: 409, title: 'Changed meanwhile', wayOut: 'Look at what differs and choose.' },
  alreadyDecided: { status: 409, title: 'Already decided', wayOut: 'Nothing is left to do.' },
  fileTooLarge: { status: 413, title: 'File too large', wayOut: 'Send a file of at most 25 MB, or a link.' },
  tableNotRead: {
    status: 422,
    title: 'The table cannot be read',
    wayOut:
      'On the line that is named, quotation marks do not fit. Mend it there and send it again; nothing was written.',
  },
  tableTooLong: {
    status: 422,
    title: 'The table is too long',
    wayOut: 'At most 200,000 rows and 64 MB at a time. Part it and send the parts.',
  },
  fileEmpty: {
    status: 422,
    title: 'File is empty',
    wayOut: 'Choose the file again; this one has no content.',
  },
  fileTypeNotAllowed: {
    status: 415,
    title: 'Kind of file not taken',
    wayOut: 'Send a picture, PDF, text, office document, zip or mp4.',
  },
  uploadBrokenOff: {
    status: 400,
    title: 'Upload broken off',
    wayOut: 'Send the file again; nothing was kept.',
  },
  bodyTooLarge: { status: 413, title: 'Too much at once', wayOut: 'Shorten the text or send it as a file.' },
  malformed: { status: 400, title: 'Cannot be read', wayOut: 'Send JSON as the API description says.' },
  listNotAskable: {
    status: 409,
    title: 'This worklist asks for something that is no more',
    wayOut: 'Open its conditions and take out what is marked.',
  },
  calendarInUse: {
    status: 409,
    title: 'Calendar in use',
    wayOut: 'Give its users another calendar first.',
  },
  icalendarNotRead: {
    status: 422,
    title: 'Not an iCalendar file',
    wayOut: 'Mend the line named and choose the file again; nothing was taken in.',
  },
  serviceNotReady: {
    status: 422,
    title: 'Not ready to be published',
    wayOut: 'Mend what is named; the draft is kept.',
  },
  serviceOff: {
    status: 409,
    title: 'Switched off for now',
    wayOut: 'Look at its page: it says what to do instead.',
  },
  serviceNotYet: {
    status: 409,
    title: 'Not open yet',
    wayOut: 'Look at its page: it says from when one may ask. What you wrote is kept.',
  },
  serviceOver: {
    status: 409,
    title: 'No longer open',
    wayOut: 'Ask the team that answers for it whether it can still take you.',
  },
  serviceFull: {
    status: 409,
    title: 'As many have asked as may',
    wayOut: 'Ask the team that answers for it whether a place has become free.',
  },
  noLastResort: {
    status: 409,
    title: 'No service takes what fits no other',
    wayOut: 'Choose a service, or ask an administrator to publish one that anyone can use.',
  },
  keyUsed: {
    status: 409,
    title: 'This key belongs to another request',
    wayOut: 'Send it again under a key of its own.',
  },
  busy: {
    status: 429,
    title: 'Something large of yours is still being worked on',
    wayOut: 'Wait until that is done, then do this again.',
  },
  tooManyCalls: {
    status: 429,
    title: 'Too many requests at once',
    wayOut: 'Wait a minute, then go on.',
  },
  tooManyUnsent: {
    status: 409,
    title: 'Too many files that were not sent',
    wayOut: 'Send or take back some of them first; those left lie a day.',
  },
  fileSent: {
    status: 409,
    title: 'Sent already',
    wayOut: 'What was sent stays where it was sent; ask its team to take it out.',
  },
  wrongCode: {
    status: 403,
    title: 'Wrong code',
    wayOut: 'Enter the code that the start command printed.',
  },
  notProven: {
    status: 403,
    title: 'Not proven to be from you',
    wayOut: 'Open the link in the mail that asked, and say it there.',
  },
  notForThem: { status: 403, title: 'Not for this person', wayOut: 'Ask those who answer for the service.' },
  noChat: {
    status: 409,
    title: 'No workplace chat is connected',
    wayOut: 'Set LISTO_CHAT_URL and its secret, then start Listo again.',
  },
  chatAway: {
    status: 502,
    title: 'The workplace chat does not answer',
    wayOut: 'What is to be said there waits and goes later by itself. Try this again in a moment.',
  },
  roomHasOthers: {
    status: 409,
    title: 'Someone in this room is no agent of the team',
    wayOut: 'Ask them to leave the room, or choose another one; nothing was connected.',
  },
  unknownBlank: {
    status: 422,
    title: 'A blank that nothing fills',
    wayOut: 'Take out what is named, or choose one of the blanks that there are.',
  },
  notTried: {
    status: 409,
    title: 'Not tried yet',
    wayOut: 'Send it as a trial first, and look at it there.',
  },
  lineClosed: {
    status: 409,
    title: 'Nobody is there now',
    wayOut: 'Write a ticket, or come back when the line is open.',
  },
  alreadyTaken: {
    status: 409,
    title: 'A colleague was first',
    wayOut: 'Nothing is left to do: they have it.',
  },
  conversationOver: {
    status: 409,
    title: 'This conversation is over',
    wayOut: 'Begin another one, or write on the ticket that came of it.',
  },
  conversationOpen: {
    status: 409,
    title: 'Another conversation is under way',
    wayOut: 'Go on in that one, or end it first.',
  },
  promisedTwice: {
    status: 409,
    title: 'This is promised already',
    wayOut: 'Change the one that is named instead, or say what is different about this one.',
  },
  alreadySetUp: { status: 409, title: 'Already set up', wayOut: 'Sign in instead.' },
  notReady: { status: 503, title: 'Database away', wayOut: 'Wait a moment; Listo tries again by itself.' },
  unexpected: {
    status: 500,
    title: 'Something went wrong',
    wayOut: 'Try again; tell the administrator the request id.',
  },
} as const satisfies Record<string, ProblemKind>;

export type ProblemName = keyof typeof PROBLEMS;
type Extra = Pick<Problem, 'fields' | 'differences' | 'facts'>;

/** An expected failure on its way to the client as problem details (RFC 9457). */
export class ProblemError extends Error {
  constructor(
    readonly problem: ProblemName,
    readonly extra: Extra = {},
  ) {
    super(problem);
    this.name = 'ProblemError';
  }
}

export function toProblem(name: ProblemName, requestId: string, extra: Extra = {}): Problem {
  const { status, title, wayOut } = PROBLEMS[name];
  return { type: `/problems/${name}`, title, status, detail: wayOut, requestId, ...extra };
}
