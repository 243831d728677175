import { addWords } from './addWords';
import { servicesEn } from './services.en';
import { servicesPt } from './services.pt';

export function addServicesWords(): void {
  addWords('services', { en: servicesEn, pt: servicesPt });
}
