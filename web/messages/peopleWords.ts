import { addWords } from './addWords';
import { peopleEn } from './people.en';
import { peoplePt } from './people.pt';

addWords('people', { en: peopleEn, pt: peoplePt });
