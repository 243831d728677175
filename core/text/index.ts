export { withoutBeginning, withoutCourtesies } from './courtesies';
export { fillBlanks, findBadText, foldText, type BadText } from './text';
