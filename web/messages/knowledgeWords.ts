import { addWords } from './addWords';
import { knowledgeEn } from './knowledge.en';
import { knowledgePt } from './knowledge.pt';

addWords('knowledge', { en: knowledgeEn, pt: knowledgePt });
