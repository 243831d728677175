import type { ToldEvent } from '../telling';
import type { SettingEntryData } from './data';
import type { TicketEntryKind } from './entry';

/**
 * What follows from each kind of entry of a ticket:
 * - told: what people are told of by it; null: of nothing
 * - isShown: whether it stands on the ticket's thread and in its history, in words
 */
export const TICKET_ENTRIES = {
  sent: { told: 'sent', isShown: true },
  taken: { told: 'taken', isShown: true },
  held: { told: 'held', isShown: true },
  resumed: { told: null, isShown: true },
  givenOn: { told: 'givenOn', isShown: true },
  done: { told: 'done', isShown: true },
  confirmed: { told: null, isShown: true },
  reopened: { told: 'reopened', isShown: true },
  closed: { told: null, isShown: true },
  withdrawn: { told: 'withdrawn', isShown: true },
  granted: { told: null, isShown: true },
  declined: { told: null, isShown: true },
  takenUp: { told: null, isShown: false },
  answered: { told: 'answered', isShown: true },
  noted: { told: 'noted', isShown: true },
  changed: { told: null, isShown: true },
  refiled: { told: null, isShown: true },
  requesterChanged: { told: 'raisedFor', isShown: true },
  undone: { told: null, isShown: true },
  followed: { told: null, isShown: true },
  unfollowed: { told: null, isShown: true },
  answersChanged: { told: null, isShown: true },
  ticked: { told: null, isShown: true },
  unticked: { told: null, isShown: true },
  procedureTicked: { told: null, isShown: true },
  procedureUnticked: { told: null, isShown: true },
  thingTied: { told: null, isShown: true },
  thingUntied: { told: null, isShown: true },
  noticeTied: { told: null, isShown: true },
  noticeUntied: { told: null, isShown: true },
  noticeTold: { told: 'noticeTold', isShown: true },
  workSubmitted: { told: null, isShown: true },
  workChanged: { told: null, isShown: true },
  workBegan: { told: null, isShown: true },
  workEnded: { told: null, isShown: true },
  workReviewed: { told: null, isShown: true },
  problemMoved: { told: null, isShown: true },
  problemTied: { told: null, isShown: true },
  problemSolved: { told: 'problemSolved', isShown: true },
  problemBack: { told: 'problemBack', isShown: true },
  putUnder: { told: 'sameMatter', isShown: true },
  cameUnder: { told: null, isShown: true },
  takenApart: { told: null, isShown: true },
  routed: { told: 'givenOn', isShown: true },
  wentOn: { told: null, isShown: true },
  cameBack: { told: null, isShown: true },
  leftBehind: { told: null, isShown: true },
  conversation: { told: null, isShown: true },
  reworded: { told: null, isShown: true },
  takenBack: { told: null, isShown: true },
  warned: { told: 'warned', isShown: true },
  late: { told: 'late', isShown: true },
  dueWarned: { told: 'late', isShown: true },
  reminded: { told: 'reminded', isShown: true },
  outOfHours: { told: 'outOfHours', isShown: true },
  ruleSaid: { told: 'ruleSaid', isShown: true },
  ruleNoted: { told: 'noted', isShown: true },
  ruleTold: { told: 'ruleTold', isShown: true },
  ruleFailed: { told: null, isShown: true },
  asked: { told: 'asked', isShown: true },
  askReminded: { told: 'asked', isShown: true },
  askPassedUp: { told: 'asked', isShown: true },
  askLeft: { told: 'asked', isShown: true },
  askAway: { told: 'asked', isShown: true },
  askWithdrawn: { told: null, isShown: false },
  questionAnswered: { told: 'asked', isShown: false },
  questioned: { told: 'questioned', isShown: true },
  noApprover: { told: 'noApprover', isShown: true },
  decided: { told: 'decided', isShown: true },
  askedAgain: { told: null, isShown: true },
  promised: { told: null, isShown: true },
  slipped: { told: 'slipped', isShown: true },
  slipTold: { told: 'slipTold', isShown: true },
  ranked: { told: null, isShown: true },
  stepAdded: { told: null, isShown: true },
  stepStarted: { told: 'stepYours', isShown: true },
  stepTicked: { told: null, isShown: false },
  stepTaken: { told: null, isShown: true },
  stepLeftBehind: { told: null, isShown: true },
  stepDone: { told: null, isShown: true },
  stepNotNeeded: { told: null, isShown: true },
  stepLeftOut: { told: null, isShown: true },
  stepRedone: { told: null, isShown: true },
  stepWithdrawn: { told: null, isShown: false },
  stepFailed: { told: 'stepFailed', isShown: true },
} as const satisfies Record<TicketEntryKind, { told: ToldEvent | null; isShown: boolean }>;

type Entries = typeof TICKET_ENTRIES;
/** The kinds that stand on a ticket's thread and in its history; each has its words in every language. */
export type ShownKind = {
  [Kind in TicketEntryKind]: Entries[Kind]['isShown'] extends true ? Kind : never;
}[TicketEntryKind];

/** All kinds of entries of tickets. */
export const TICKET_ENTRY_KINDS = Object.keys(TICKET_ENTRIES) as [TicketEntryKind, ...TicketEntryKind[]];

function isOfTicket(kind: string): kind is TicketEntryKind {
  return Object.hasOwn(TICKET_ENTRIES, kind);
}

/** What people are told of by an entry of this kind; null: of nothing. @example toldOf('routed') // 'givenOn' */
export function toldOf(kind: string): ToldEvent | null {
  return isOfTicket(kind) ? TICKET_ENTRIES[kind].told : null;
}

/** Whether entries of this kind stand on a ticket's thread and in its history. */
export function isShown(kind: string): kind is ShownKind {
  return isOfTicket(kind) && TICKET_ENTRIES[kind].isShown;
}

/**
 * The kinds of entries about the organisation: who comes in and what they may and looked at (access), and what was set
 * (setting). A new kind does not compile until it stands here.
 */
export const SETTING_ENTRIES = {
  teamMade: 'setting',
  teamChanged: 'setting',
  siteChanged: 'setting',
  routingSet: 'setting',
  presenceSet: 'setting',
  personMade: 'setting',
  personChanged: 'setting',
  personInvited: 'access',
  personArrived: 'access',
  passwordForgotten: 'access',
  memberSet: 'access',
  memberGone: 'access',
  groupMade: 'setting',
  siteMade: 'setting',
  ruleMade: 'setting',
  ruleChanged: 'setting',
  ruleSwitched: 'setting',
  ruleStopped: 'setting',
  ruleRemoved: 'setting',
  rulesOrdered: 'setting',
  thingMade: 'setting',
  thingChanged: 'setting',
  thingActed: 'setting',
  thingNeeds: 'setting',
  thingSaid: 'setting',
  thingsCounted: 'setting',
  thingKindMade: 'setting',
  thingKindChanged: 'setting',
  noticeMade: 'setting',
  noticeChanged: 'setting',
  noticeEnded: 'setting',
  noticeCalledBack: 'setting',
  noticeReviewed: 'setting',
  freezeSet: 'setting',
  freezeRemoved: 'setting',
  workTemplateSet: 'setting',
  causeKindsSet: 'setting',
  personLeft: 'setting',
  personBack: 'setting',
  chatLineSet: 'setting',
  mailTextChanged: 'setting',
  targetChanged: 'setting',
  calendarMade: 'setting',
  calendarChanged: 'setting',
  calendarRemoved: 'setting',
  categoriesChanged: 'setting',
  serviceBegun: 'setting',
  draftDiscarded: 'setting',
  servicePublished: 'setting',
  serviceOn: 'setting',
  serviceOff: 'setting',
  articleBegun: 'setting',
  articleMoved: 'setting',
  recounted: 'setting',
  chatRoomSet: 'setting',
  chatRoomLeft: 'setting',
  chatSet: 'setting',
  chatNoticeAdded: 'setting',
  chatNoticeTurned: 'setting',
  chatNoticeRemoved: 'setting',
  programMade: 'access',
  programChanged: 'access',
  apiKeyMade: 'access',
  apiKeyRevoked: 'access',
  webhookMade: 'setting',
  webhookChanged: 'setting',
  webhookSwitched: 'setting',
  webhookRemoved: 'setting',
  personLinked: 'access',
  factorSet: 'access',
  factorRemoved: 'access',
  providerMade: 'access',
  providerChanged: 'access',
  providerRemoved: 'access',
  signOnSet: 'access',
  signedIn: 'access',
  signInFailed: 'access',
  signedOut: 'access',
  exported: 'access',
  confidentialRead: 'access',
  personErased: 'access',
} as const satisfies Record<keyof SettingEntryData, 'access' | 'setting'>;

/** A kind of entry about the organisation. */
export type SettingEntryKind = keyof typeof SETTING_ENTRIES;
/** All kinds of entries about the organisation. */
export const SETTING_ENTRY_KINDS = Object.keys(SETTING_ENTRIES) as [SettingEntryKind, ...SettingEntryKind[]];
