export { fillBlanks, findBadText, foldText, type BadText } from './text';
