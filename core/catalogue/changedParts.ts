import type { ServiceDefinition } from './types';

/** The parts in which a service is written and read. */
const PART_OF = {
  ...{ kind: 'about', place: 'about', categoryId: 'about', icon: 'about', title: 'about' },
  ...{ description: 'about', otherWords: 'about', teamId: 'about', groupId: 'about', ownerId: 'about' },
  ...{ cost: 'about', impact: 'about', urgency: 'about' },
  ...{
    audience: 'audience',
    opening: 'audience',
    thanks: 'words',
    form: 'form',
    approvals: 'approvals',
    fallbackApproverId: 'approvals',
  },
  ...{ plan: 'plan', stateWords: 'words', articleLabels: 'help' },
} as const satisfies Record<keyof ServiceDefinition, string>;

/** A part of a service that differs between two versions. */
export type ChangedPart = (typeof PART_OF)[keyof ServiceDefinition];

/**
 * In which parts two versions of a service differ, in the order in which they stand on its page.
 * @example changedParts(first, { ...first, cost: 100 }) // ['about']
 */
export function changedParts(one: ServiceDefinition, other: ServiceDefinition): ChangedPart[] {
  // What was not there yet when one of them was written is nothing.
  const told = (value: unknown): string => JSON.stringify(value ?? null);
  const keys = Object.keys(PART_OF) as (keyof ServiceDefinition)[];
  return [...new Set(keys.filter((key) => told(one[key]) !== told(other[key])).map((key) => PART_OF[key]))];
}
