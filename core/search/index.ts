export { analyserOf, listWords, type Word } from './analyse';
export { findPassage, mark, type PassagePart } from './passage';
export { createFinder, type Findable, type Finder } from './search';
export { TextIndex, type Found, type IndexedText, type Synonyms } from './textIndex';
