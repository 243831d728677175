import { holds, type Condition, type Fields } from '../conditions';

/** One group of people that a service is for; it is for whoever is in any of its groups. */
export type AudiencePart =
  | { by: 'site' | 'department' | 'title' | 'team'; in: string[] }
  | { by: 'onVessel' | 'lead' | 'agent' }
  | { by: 'condition'; when: Condition };

/** Nothing said: everyone. */
export type Audience = AudiencePart[];

/** What an audience may ask of a person. `teams` are those that they work in, `leads` those that they lead. */
export type AudiencePerson = {
  site: string;
  department: string;
  title: string;
  vessel: string | null;
  teams: string[];
  leads: string[];
};

/** What conditions on an audience may ask of a person. */
export function toFields({ teams, leads, ...person }: AudiencePerson): Fields {
  return { ...person, teams, leads, isAgent: teams.length > 0, isLead: leads.length > 0 };
}

function isInPart(part: AudiencePart, person: AudiencePerson): boolean {
  switch (part.by) {
    case 'site':
    case 'department':
    case 'title':
      return part.in.includes(person[part.by]);
    case 'team':
      return person.teams.some((team) => part.in.includes(team));
    case 'onVessel':
      return person.vessel !== null && person.vessel !== '';
    case 'lead':
      return person.leads.length > 0;
    case 'agent':
      return person.teams.length > 0;
    case 'condition':
      return holds(part.when, toFields(person));
  }
}

/**
 * Whether a service is for someone.
 * @example isInAudience([{ by: 'onVessel' }], { ...lena, vessel: 'MV Petrel' }) // true
 */
export function isInAudience(audience: Audience, person: AudiencePerson): boolean {
  return audience.length === 0 || audience.some((part) => isInPart(part, person));
}
