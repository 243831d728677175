import { addWords } from './addWords';
import { rulesEn } from './rules.en';
import { rulesPt } from './rules.pt';

addWords('rules', { en: rulesEn, pt: rulesPt });
