import i18next from 'i18next';
import { workshopEn } from './workshop.en';
import { workshopPt } from './workshop.pt';

/** Adds the Workshop's words to the catalogue; they come with its pages, not with the first load. */
export function addWorkshopWords(): void {
  i18next.addResourceBundle('en', 'translation', { workshop: workshopEn }, true, true);
  const addPt = (): void =>
    void i18next.addResourceBundle('pt', 'translation', { workshop: workshopPt }, true, true);
  if (i18next.hasResourceBundle('pt', 'translation')) addPt();
  // Portuguese may be chosen later: its bundle is then made first, and this is added to it.
  else
    i18next.on('languageChanged', (language) => {
      if (language === 'pt') addPt();
    });
}
