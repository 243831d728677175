export { withoutBeginning, courtesyOf, withoutCourtesies } from './courtesies';
export { fillBlanks, findBadText, foldText, type BadText } from './text';
