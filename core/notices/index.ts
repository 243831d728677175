export {
  CALL_BACK_MS,
  checkNotice,
  isLongerThanSaid,
  isShownNow,
  mayCallBack,
  NOTICE_KINDS,
  NOTICE_LIMITS,
  NOTICE_STATES,
  noticeState,
  overAt,
  STILL_SHOWN_MS,
  toOutages,
} from './notices';
export type { NoticeKind, NoticeProblem, NoticeState, NoticeTimes } from './notices';
export { fitsNotice, type Announced, type Written } from './fits';
export { toLine, type LinePoint } from './line';
