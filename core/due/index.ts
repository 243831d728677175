export { checkReminder, dueInstant, judgeDue, type DueByHand, type DueStanding } from './due';
