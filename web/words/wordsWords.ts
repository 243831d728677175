import { addWords } from '../messages/addWords';
import { wordsEn } from '../messages/words.en';
import { wordsPt } from '../messages/words.pt';

addWords('words', { en: wordsEn, pt: wordsPt });
