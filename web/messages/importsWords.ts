import { addWords } from './addWords';
import { importsEn } from './imports.en';
import { importsPt } from './imports.pt';

addWords('imports', { en: importsEn, pt: importsPt });
