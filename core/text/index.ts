export { findBadText, foldText, type BadText } from './text';
