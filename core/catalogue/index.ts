export { isInAudience, type Audience, type AudiencePart, type AudiencePerson } from './audience';
export { changedParts, type ChangedPart } from './changedParts';
export { checkService, SERVICE_PARTS } from './checkService';
export type { ServicePart, ServiceProblem, ServiceSurroundings } from './checkService';
export { checkOpening, standingOf, type Opening, type Standing } from './opening';
export { fromKit, SERVICE_KITS, type KitName } from './kits';
export type { ServiceDefinition } from './types';
