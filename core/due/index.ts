export {
  checkReminder,
  dueInstant,
  isPast,
  judgeDue,
  toneOfDue,
  type DueByHand,
  type DueStanding,
} from './due';
