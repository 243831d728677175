export { withoutBeginning, courtesyOf, withoutCourtesies } from './courtesies';
export { fillBlanks, findBadText, foldText, listBlanks, type BadText } from './text';
