export { planOutOfHours, WAITS, type OutOfHours } from './outOfHours';
