import type { KeptPerson, PersonBody } from '../../../contract/organisation';

/** A person of whom nothing has been said. */
export const NOBODY: PersonBody = {
  ...{ name: '', email: '', phone: '', title: '', department: '', siteId: '', place: '', vessel: '' },
  ...{ costCentre: '', managerId: null, language: 'en', isAdministrator: false },
  ...{ mayAskForOthers: false, goesFirst: false },
};

export const FACTS = Object.keys(NOBODY) as (keyof PersonBody)[];

/** What is written of a person, out of all that is known. */
export const bodyOf = (person: KeptPerson): PersonBody =>
  Object.fromEntries(FACTS.map((name) => [name, person[name]])) as PersonBody;
