export { areAlike } from './alike';
export {
  FORGOTTEN_MS,
  INVITATION_MS,
  invitationState,
  type Invitation,
  type InvitationState,
} from './invitation';
export { closesRing } from './manager';
export {
  guessPersonMapping,
  NEEDED_OF_PERSON,
  PERSON_FIELDS,
  readPersonRow,
  type PersonField,
  type PersonLookups,
  type PersonRow,
  type PersonRowProblem,
} from './table';
