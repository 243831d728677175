import type { ThingAct } from '../estate';
import type { Answers, LocalText } from '../forms';
import type { ArticleState } from '../knowledge';
import type { Routed } from '../routing';
import type { Reader } from '../telling';
import type { MoverRole } from '../tickets';
import type { ProblemStage, ProblemTie } from '../problems';
import type { WorkOutcome } from '../works';

/** Nothing beside the fields that every entry has. */
type Nothing = object;
/** The version that the change left the ticket with. */
type OfChange<Data = Nothing> = Data & { version: number };
/** Words that were written with it. */
type Words = { messageId?: string };
/** A move between states, and who made it. */
type OfMove = OfChange<Words & { by: MoverRole }>;
/** Words in the thread; who is called in them is told. `saidAt`: when they were said, where they came a good while later. */
type OfWords = OfChange<Words & { mentioned?: string[]; saidAt?: number }>;
/** A step of the plan. */
type OfStep<Data = Nothing> = Data & { stepId: string; name: LocalText; reason?: string };
/** A target's warning or breach: the instant at which it fell due, and whom it tells in which words, where it says so itself. */
type OfNotice = {
  targetId: string;
  target: string;
  dueAt: number;
  isOverdueNotice: boolean;
  tell?: Reader[];
  words?: LocalText;
};
/** A published notice, by the title that it had. */
type OfPublished<Data = Nothing> = Data & { noticeId: string; title: LocalText };
/** A rule, by the name that it had. */
type OfRule<Data = Nothing> = Data & { ruleId: string; rule: LocalText };
/** Who is asked to decide. Without a person the place to decide went. */
type OfAsked = { approvalId: string; askId?: string; personId?: string; fromId?: string; reason?: string };
/** A conversation whose words a ticket was made of. */
type OfTranscript = OfChange<{ messageId: string }>;

/** What each kind of entry of a ticket carries beside its changes. Instants in ms since 1970. */
export type TicketEntryData = {
  sent: { version: number; awaitsApproval: boolean };
  taken: OfMove;
  held: OfMove;
  resumed: OfMove;
  givenOn: OfMove;
  done: OfMove;
  confirmed: OfMove;
  reopened: OfMove;
  closed: OfMove;
  withdrawn: OfMove;
  granted: OfMove;
  declined: OfMove;
  takenUp: OfChange;
  answered: OfWords & { from?: number | null };
  noted: OfWords;
  /** `targetId` and `target`: the target that made the ticket more urgent. */
  changed: OfChange<{ targetId?: string; target?: string }>;
  refiled: OfChange<{ name: LocalText; formerName: LocalText }>;
  requesterChanged: OfChange<{ personId: string; fromId: string }>;
  /** `undoes`: the entry that was taken back. */
  undone: OfChange<{ undoes: number }>;
  followed: OfChange<{ personId: string; role: string }>;
  unfollowed: OfChange<{ personId: string; role: string }>;
  /** `fields`: the questions whose answers changed. */
  answersChanged: OfChange<{ fields: LocalText[] }>;
  ticked: OfChange<{ of: string; said: string }>;
  unticked: OfChange<{ of: string; said: string }>;
  procedureTicked: OfChange<{ stepId: string; name: string | LocalText }>;
  procedureUnticked: OfChange<{ stepId: string; name: string | LocalText }>;
  thingTied: OfChange<{ thingId: string; name: string; how: string }>;
  thingUntied: OfChange<{ thingId: string; name: string }>;
  noticeTied: OfChange<OfPublished>;
  noticeUntied: OfChange<OfPublished>;
  /** Words of a notice to those of the ticket who have not been told of them yet: `personIds`. */
  noticeTold: OfChange<OfPublished<{ words: LocalText; personIds: string[] }>>;
  workSubmitted: OfChange;
  /** `fields`: what of the change is otherwise. */
  workChanged: OfChange<{ fields: LocalText[] }>;
  workBegan: OfChange;
  workEnded: OfChange<{ outcome: WorkOutcome }>;
  workReviewed: OfChange;
  problemMoved: OfChange<{ stage: ProblemStage }>;
  /** On the problem and on the incident: which the other is, and what the one is to the other. */
  problemTied: OfChange<{ other: number; tie: ProblemTie; reason?: string }>;
  problemSolved: OfChange<{ other: number; words: LocalText }>;
  problemBack: OfChange<{ count: number }>;
  putUnder: OfChange<{ under: number; as: 'same' | 'cause'; brought: string[]; overTitle: string }>;
  cameUnder: OfChange<{ below: number; as: 'same' | 'cause' }>;
  takenApart: OfChange<{ under: number }>;
  routed: OfChange<
    Partial<Omit<Routed, 'personId' | 'passedOver' | 'way'>> & {
      personId: string | null;
      way?: Routed['way'] | 'byHand';
      passedOver?: Partial<Record<string, number>>;
    }
  >;
  wentOn: { minutes: number };
  cameBack: { personId: string };
  leftBehind: { personId: string };
  conversation: OfTranscript;
  reworded: { words: string };
  takenBack: Nothing;
  warned: OfNotice & { percent: number };
  late: OfNotice;
  dueWarned: { dueAt: number };
  reminded: { dueAt: number };
  outOfHours: { opensAt: number | null; words: LocalText };
  ruleSaid: OfRule<{ words: LocalText }>;
  ruleNoted: OfRule<{ words: LocalText }>;
  ruleTold: OfRule<{ words: LocalText; tell: Reader[]; personIds: string[] }>;
  /** `effect`: what it was to do; `code`: why that could not be done. */
  ruleFailed: OfRule<{ effect: string; code: string }>;
  asked: OfAsked;
  askReminded: OfAsked;
  askPassedUp: OfAsked;
  askLeft: OfAsked;
  askAway: OfAsked;
  askWithdrawn: Nothing;
  questionAnswered: OfAsked;
  questioned: OfChange<{ messageId: string; askId: string }>;
  noApprover: Nothing;
  /** `how`: by which way, where it was not by the one who was asked, `voterId`. */
  decided: {
    approvalId: string;
    askId?: string;
    decision: 'approve' | 'decline';
    outcome: 'open' | 'approved' | 'declined';
    words: string;
    how?: string;
    voterId?: string;
  };
  askedAgain: OfChange;
  promised: { promisedAt: number };
  slipped: { promisedAt: number; forecastAt: number; driving: LocalText[] };
  slipTold: { promisedAt: number; forecastAt: number };
  ranked: OfStep<{ place: number; count: number }>;
  stepAdded: OfStep;
  stepStarted: OfStep;
  stepTaken: OfStep;
  stepTicked: OfStep;
  stepLeftBehind: OfStep<{ personId: string }>;
  /** `fields`: the answers that an automatic step brought. */
  stepDone: OfStep<{ words?: string; fields?: Answers }>;
  stepNotNeeded: OfStep;
  stepLeftOut: OfStep;
  stepRedone: OfStep;
  stepWithdrawn: OfStep;
  stepFailed: OfStep;
};

/** What each kind of entry about the organisation and its settings carries. */
export type SettingEntryData = {
  teamMade: { teamId: string; name: string };
  teamChanged: { teamId: string };
  siteChanged: { siteId: string; calendarId: string };
  routingSet: { teamId: string };
  presenceSet: { personId: string; presence: string; teamIds: string[] };
  personMade: { personId: string; teamIds: string[] };
  personChanged: { personId: string; teamIds: string[]; fields: string[] };
  personInvited: { personId: string; teamIds: string[] };
  personArrived: { personId: string; teamIds: string[] };
  passwordForgotten: { personId: string; teamIds: string[] };
  memberSet: { personId: string; teamIds: string[]; role: string };
  memberGone: { personId: string; teamIds: string[] };
  groupMade: { teamId: string; name: string };
  siteMade: { siteId: string; name: string };
  ruleMade: { ruleId: string; name: string };
  ruleChanged: { ruleId: string; name: string };
  ruleSwitched: { ruleId: string; name: string; isOn: boolean };
  ruleStopped: { ruleId: string; name: string; personIds: string[] };
  ruleRemoved: { ruleId: string; name: string };
  rulesOrdered: { ruleIds: string[] };
  thingMade: { thingId: string; name: string };
  thingChanged: { thingId: string; name: string };
  /** `personIds`: who had it before and who has it now. */
  thingActed: { thingId: string; name: string; act: ThingAct; personIds: string[] };
  thingNeeds: { thingId: string; name: string };
  /** What its holder said of it, or that this is dealt with. */
  thingSaid: { thingId: string; name: string; claim: string | null; personIds: string[] };
  thingsCounted: { thingId: string; name: string };
  thingKindMade: { kindId: string; name: string };
  thingKindChanged: { kindId: string; name: string };
  noticeMade: { noticeId: string; name: string };
  noticeChanged: { noticeId: string; name: string };
  noticeEnded: { noticeId: string; name: string };
  noticeCalledBack: { noticeId: string; name: string };
  noticeReviewed: { noticeId: string; name: string };
  freezeSet: { freezeId: string; name: string };
  freezeRemoved: { freezeId: string; name: string };
  workTemplateSet: { serviceId: string; isStandard: boolean };
  causeKindsSet: Nothing;
  personLeft: { personId: string; teamIds: string[] };
  personBack: { personId: string; teamIds: string[] };
  chatLineSet: { line: string };
  mailTextChanged: { template: string };
  targetChanged: { targetId: string; name: string; edition?: number; isForOpen?: boolean };
  calendarMade: { calendarId: string; name: string };
  calendarChanged: { calendarId: string; name: string };
  calendarRemoved: { calendarId: string; name: string };
  categoriesChanged: Nothing;
  serviceBegun: { serviceId: string; title: string };
  draftDiscarded: { serviceId: string };
  servicePublished: { serviceId: string; version: number };
  serviceOn: { serviceId: string; words: LocalText | null };
  serviceOff: { serviceId: string; words: LocalText | null };
  articleBegun: { articleId: string };
  articleMoved: { articleId: string; from: ArticleState; to: ArticleState };
  recounted: { why: string; counted: number; moved: number };
  chatRoomSet: { room: string; job: string | null; teamId: string | null };
  chatRoomLeft: { room: string };
  chatSet: Nothing;
  chatNoticeAdded: { name: string };
  chatNoticeTurned: { name: string; isOn: boolean };
  chatNoticeRemoved: { name: string };
  programMade: { programId: string; name: string };
  programChanged: { programId: string; name: string };
  /** `keyOf`: the id of the key, which is no secret. */
  apiKeyMade: { programId: string; name: string; keyOf: string };
  apiKeyRevoked: { programId: string; name: string; keyOf: string };
  webhookMade: { webhookId: string; name: string };
  webhookChanged: { webhookId: string; name: string };
  webhookSwitched: { webhookId: string; name: string; isOn: boolean };
  webhookRemoved: { webhookId: string; name: string };
  /** Somebody who signed in at a provider is this person from now on. */
  personLinked: { personId: string; teamIds: string[]; providerId: string };
  factorSet: { personId: string };
  factorRemoved: { personId: string };
  providerMade: { providerId: string; name: string };
  providerChanged: { providerId: string; name: string };
  providerRemoved: { providerId: string; name: string };
  /** `only`: the one who may have a password; empty: everybody may. */
  signOnSet: { only: string };
  /** `address`: where from. */
  signedIn: { personId: string; address: string };
  /** `name`: the mail address that was typed. */
  signInFailed: { name: string; address: string };
  signedOut: { personId: string };
  /** `what`: which table or record was taken out. */
  exported: { personId: string; what: string };
  /** Somebody looked at a ticket in confidence. */
  confidentialRead: { personId: string; number: number };
  /** `why`: the reason that whoever did it gave. */
  personErased: { personId: string; teamIds: string[]; why: string };
};
