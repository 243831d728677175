import { createHmac, timingSafeEqual } from 'node:crypto';

/**
 * What a form carries there and back, so that it comes back as it was given: the chat, and whoever fills the form in, could
 * otherwise put other people's words and files into it.
 */
export function seal(secret: string, content: object): string {
  const body = Buffer.from(JSON.stringify(content)).toString('base64url');
  return `${body}.${macOf(secret, body)}`;
}

/** The content, or null where it is not as it was sealed. */
export function unseal(secret: string, sealed: unknown): unknown {
  const [body = '', mac = ''] = typeof sealed === 'string' ? sealed.split('.') : [];
  const wanted = Buffer.from(macOf(secret, body));
  const given = Buffer.from(mac);
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return null;
  return JSON.parse(Buffer.from(body, 'base64url').toString());
}

const macOf = (secret: string, body: string): string =>
  createHmac('sha256', secret).update(body).digest('base64url');
