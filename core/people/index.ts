export { areAlike } from './alike';
export { INVITATION_MS, invitationState, type Invitation, type InvitationState } from './invitation';
export { closesRing } from './manager';
