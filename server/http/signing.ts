import { Webhook } from 'standardwebhooks';

/**
 * Requests between Listo and other programs are signed as the Standard Webhooks specification says
 * (https://www.standardwebhooks.com): `webhook-id`, `webhook-timestamp` and an HMAC-SHA256 over both and the body.
 */
export type SignedHeaders = Record<'webhook-id' | 'webhook-timestamp' | 'webhook-signature', string>;

export function sign(
  secret: string,
  { id, body }: { id: string; body: string },
  at = new Date(),
): SignedHeaders {
  return {
    'webhook-id': id,
    'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
    'webhook-signature': new Webhook(secret).sign(id, at, body),
  };
}

/**
 * Whether a request is from the one who knows the secret, and not older than five minutes (by the machine's clock, which
 * both sides go by). What is sent once more within these is known by its id.
 */
export function isSigned(secret: string, body: string, headers: Record<string, string>): boolean {
  try {
    new Webhook(secret).verify(body, headers);
    return true;
  } catch {
    return false;
  }
}
