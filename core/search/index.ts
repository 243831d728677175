export { createFinder, type Findable, type Finder } from './search';
