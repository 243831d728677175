import { addWords } from './addWords';
import { workshopEn } from './workshop.en';
import { workshopPt } from './workshop.pt';

export function addWorkshopWords(): void {
  addWords('workshop', { en: workshopEn, pt: workshopPt });
}
