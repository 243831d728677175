export { getOwn, hasOwn, setOwn } from './records';
