/** What the mail server in front found out about who sent a message. */
export type Proof = 'proven' | 'disproven' | 'unknown';

/** A method and its result, with its properties (RFC 8601, 2.2): `dkim=pass header.d=example.org`. */
const RESULT = /^\s*([a-z][a-z0-9-]*)\s*(?:\/\s*\d+\s*)?=\s*([a-z]+)\b/i;
const PROPERTY = /([a-z]+)\s*\.\s*([a-z0-9_-]+)\s*=\s*("[^"]*"|[^\s;]+)/gi;
const LONGEST = 8_000;

/** Without comments in brackets and folding: they say nothing to machines. */
function plain(header: string): string {
  let text = '';
  let depth = 0;
  for (const sign of header.slice(0, LONGEST)) {
    if (sign === '(') depth++;
    else if (sign === ')') depth = Math.max(0, depth - 1);
    else if (depth === 0) text += sign === '\r' || sign === '\n' ? ' ' : sign;
  }
  return text;
}

const domainOf = (value: string): string => value.replace(/^"|"$/g, '').split('@').at(-1)!.toLowerCase();
/** Whether one domain is the other or below it: what speaks for a domain speaks for those below (RFC 7489, 3.1). */
const isAligned = (one: string, other: string): boolean =>
  one === other || one.endsWith(`.${other}`) || other.endsWith(`.${one}`);

/**
 * Whether a message comes from the domain that it names as its sender's, by the Authentication-Results of the one server
 * that is trusted to say so (RFC 8601); what others claim is not read. A passed DMARC proves it, and so does a passed SPF
 * or DKIM of the same domain, unless DMARC failed.
 * @param headers the values of all such fields, the uppermost first
 * @example readProof(['mx.example.org; dmarc=pass header.from=a.example'], 'mx.example.org', 'ana@a.example') // 'proven'
 */
export function readProof(headers: string[], authservId: string, from: string): Proof {
  const domain = domainOf(from);
  let proof: Proof = 'unknown';
  for (const header of headers) {
    const [named = '', ...results] = plain(header).split(';');
    if (named.trim().split(/\s+/)[0]?.toLowerCase() !== authservId.toLowerCase()) continue;
    // The server in front writes uppermost; one of its name further down may be forged.
    for (const result of results) {
      const [, method = '', found = ''] = RESULT.exec(result) ?? [];
      const properties = new Map(
        [...result.matchAll(PROPERTY)].map(([, type, name, value]) => [
          `${type!}.${name!}`.toLowerCase(),
          domainOf(value!),
        ]),
      );
      const isPass = found.toLowerCase() === 'pass';
      switch (method.toLowerCase()) {
        case 'dmarc':
          if ((properties.get('header.from') ?? domain) === domain) return isPass ? 'proven' : 'disproven';
          break;
        case 'spf':
          if (isPass && isAligned(properties.get('smtp.mailfrom') ?? '', domain)) proof = 'proven';
          break;
        case 'dkim':
          if (isPass && isAligned(properties.get('header.d') ?? properties.get('header.i') ?? '', domain))
            proof = 'proven';
      }
    }
    return proof;
  }
  return proof;
}
