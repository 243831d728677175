import { addWords } from './addWords';
import { boardsEn } from './boards.en';
import { boardsPt } from './boards.pt';

addWords('boards', { en: boardsEn, pt: boardsPt });
