import type * as byMail from '../assistant/byMail';

/** What mail asks of the assistant: what may answer a mail, and what came of it. */
export type MailPorts = Pick<typeof byMail, 'findMailAnswers' | 'keepSent' | 'keepWasIt'>;
