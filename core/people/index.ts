export { areAlike } from './alike';
export {
  FORGOTTEN_MS,
  INVITATION_MS,
  invitationState,
  type Invitation,
  type InvitationState,
} from './invitation';
export { closesRing } from './manager';
