import { addWords } from './addWords';
import { servicesEn } from './services.en';
import { servicesPt } from './services.pt';

addWords('services', { en: servicesEn, pt: servicesPt });
