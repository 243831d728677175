import { createHmac } from 'node:crypto';
import { Webhook } from 'standardwebhooks';
import { isSigned, sign } from './signing';

// The example of the Standard Webhooks specification's reference libraries.
const SECRET = 'whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw';
const ID = 'msg_p5jXN8AQM9LWM0D4loKWxJek';
const AT = new Date(1_614_265_330_000);
const BODY = '{"test": 2432232314}';
const SIGNATURE = 'v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=';

test('signs as the Standard Webhooks specification’s example is signed', () => {
  expect(sign(SECRET, { id: ID, body: BODY }, AT)).toEqual({
    'webhook-id': ID,
    'webhook-timestamp': '1614265330',
    'webhook-signature': SIGNATURE,
  });
});

// RFC 4231, test cases 1, 2 and 6: key, data, HMAC-SHA-256.
test.each([
  [Buffer.alloc(20, 0x0b), 'Hi There', 'b0344c61d8db38535ca8afceaf0bf12b881dc200c9833da726e9376c2e32cff7'],
  [
    Buffer.from('Jefe'),
    'what do ya want for nothing?',
    '5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843',
  ],
  [
    Buffer.alloc(131, 0xaa),
    'Test Using Larger Than Block-Size Key - Hash Key First',
    '60e431591ee0b67f0d8a26aacbf5b77f8e0bc6213728c5140546040f0ee37f54',
  ],
])('the HMAC beneath is that of RFC 4231', (key, data, mac) => {
  expect(createHmac('sha256', key).update(data).digest('hex')).toBe(mac);
  // What is signed is that HMAC over id, time and body.
  const secret = `whsec_${key.toString('base64')}`;
  const signed = createHmac('sha256', key).update(`${ID}.1614265330.${data}`).digest('base64');
  expect(sign(secret, { id: ID, body: data }, AT)['webhook-signature']).toBe(`v1,${signed}`);
});

test('what the reference package signs is taken; another body, secret, id or an old one is not', () => {
  const now = new Date();
  const headers = {
    'webhook-id': ID,
    'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
    'webhook-signature': new Webhook(SECRET).sign(ID, now, BODY),
  };
  expect(isSigned(SECRET, BODY, headers)).toBe(true);
  expect(isSigned(SECRET, `${BODY} `, headers)).toBe(false);
  expect(isSigned(SECRET, BODY, { ...headers, 'webhook-id': 'other' })).toBe(false);
  expect(isSigned(`whsec_${Buffer.alloc(24).toString('base64')}`, BODY, headers)).toBe(false);
  expect(
    isSigned(SECRET, BODY, sign(SECRET, { id: ID, body: BODY }, new Date(now.getTime() - 301_000))),
  ).toBe(false);
  expect(isSigned(SECRET, BODY, {})).toBe(false);
});
