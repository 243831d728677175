import fc from 'fast-check';
import {
  afterSilence,
  calibrationError,
  chooseOffer,
  evidenceOf,
  findTemperature,
  isCardNumber,
  learn,
  LEAST_PAST,
  listConfusions,
  listDoubles,
  maskSecrets,
  NEW_TALK,
  proceed,
  softmax,
  sumFor,
  titleOf,
  tryOffers,
  understand,
  understandMessage,
  type Input,
  type JudgedPhrasing,
  type Likely,
  type Matter,
  type Next,
} from './index';

const en = (...texts: string[]) => texts.map((text) => ({ text, language: 'en' as const }));
const MATTERS = [
  { id: 'password', phrasings: en('reset', 'password reset help', 'new password', 'password reset') },
  {
    id: 'kiosk',
    phrasings: en('kiosk frozen', 'ticket machine stops', 'machine does not take cards', 'kiosk payment'),
  },
  {
    id: 'badge',
    phrasings: en('lost my badge', 'card does not open the door', 'door stays red', 'new access card'),
  },
  { id: 'short', phrasings: en('too few', 'to learn') },
];
const learned = learn(MATTERS, { en: [['kiosk', 'terminal']] });

test('what was never said so is understood; what fits none is something else', () => {
  // Common practice in the trade.
  expect(understand(learned, 'password help', 'en')[0]!.id).toBe('password');
  expect(understand(learned, 'the door does not open', 'en')[0]!.id).toBe('badge');
  expect(understand(learned, 'terminal frozzen', 'en')[0]!.id).toBe('kiosk');
  expect(understand(learned, 'what is the weather like', 'en')[0]!.id).toBeNull();
  expect(learned.ids).not.toContain('short');
  expect(understand(learned, 'zzzz qqqq', 'en')[0]).toEqual({ id: null, sureness: 1 });
  const all = understand(learned, 'kiosk', 'en');
  expect(all.reduce((sum, { sureness }) => sum + sureness, 0)).toBeCloseTo(1, 9);
});

const likely = (...all: [string | null, number][]): Likely[] =>
  all.map(([id, sureness]) => ({ id, sureness }));

test.each<[string, [string | null, number][], ReturnType<typeof chooseOffer>]>([
  [
    'one reaches the sum',
    [
      ['a', 0.93],
      ['b', 0.05],
    ],
    { kind: 'confirm', ids: ['a'] },
  ],
  [
    'two reach it together',
    [
      ['a', 0.6],
      ['b', 0.35],
      ['c', 0.05],
    ],
    { kind: 'choose', ids: ['a', 'b'] },
  ],
  [
    'something else is among the first',
    [
      ['a', 0.6],
      [null, 0.35],
      ['c', 0.05],
    ],
    { kind: 'unclear', ids: ['a', 'c'] },
  ],
  [
    'more than four could be meant',
    [
      ['a', 0.2],
      ['b', 0.2],
      ['c', 0.2],
      ['d', 0.2],
      ['e', 0.2],
    ],
    { kind: 'unclear', ids: ['a', 'b', 'c'] },
  ],
  [
    'something else is as likely as all',
    [
      [null, 0.5],
      ['a', 0.3],
      ['b', 0.2],
    ],
    { kind: 'unclear', ids: ['a', 'b'] },
  ],
  [
    'something else is likelier',
    [
      [null, 0.51],
      ['a', 0.3],
      ['b', 0.19],
    ],
    { kind: 'reword', ids: ['a', 'b'] },
  ],
  [
    'there is one matter alone, and it is unclear',
    [
      ['a', 0.6],
      [null, 0.4],
    ],
    { kind: 'reword', ids: ['a'] },
  ],
])('%s', (_, given, offer) => {
  expect(chooseOffer(likely(...given), 0.9)).toEqual(offer);
});

describe('a message', () => {
  const read = (text: string) => understandMessage(learned, { text, language: 'en', sum: 0.9 });

  test('is read sentence by sentence: what leads up to a matter says nothing of it', () => {
    const chatty =
      'I hope that you all had a fine weekend with some sun. My sister came over from the island with both of her boys. The kiosk is frozen.';
    expect(understand(learned, chatty, 'en')[0]!.sureness).toBeLessThan(read(chatty).likely[0]!.sureness);
    expect(read(chatty).likely[0]!.id).toBe('kiosk');
  });

  test.each([
    'The kiosk is frozen. I forgot my password.',
    'the kiosk is frozen and I forgot my password',
    'I forgot my password, also the kiosk is frozen',
  ])('that names two matters is asked about both: %s', (text) => {
    const { offer } = read(text);
    expect(offer.kind).toBe('both');
    expect([...offer.ids].sort()).toEqual(['kiosk', 'password']);
  });

  test('that says one thing twice is of one matter', () => {
    expect(read('The kiosk is frozen. The kiosk is frozen again and again.').offer).toEqual({
      kind: 'confirm',
      ids: ['kiosk'],
    });
  });
});

test('the more sureness is wanted, the more often an offer holds what was meant', () => {
  const judged = learned.judged;
  expect(sumFor(judged, 0.8)).toBeLessThanOrEqual(sumFor(judged, 0.95));
  for (const { offered, held, single } of [tryOffers(judged, 0.5), tryOffers(judged, 0.95)])
    for (const share of [offered, held, single]) expect(share >= 0 && share <= 1).toBe(true);
});

test('from a hundred conversations on, they say how far offers go: no further than holds what was meant', () => {
  const said = (count: number, isRight: boolean): JudgedPhrasing[] =>
    Array.from({ length: count }, () => ({
      ...{ id: isRight ? 'a' : 'b', text: '' },
      likely: likely(['a', 0.6], ['b', 0.3], ['c', 0.1]),
    }));
  const judged = said(10, false);
  const past = [...said(93, true), ...said(7, false)];
  expect(sumFor(evidenceOf(judged, past), 0.9)).toBeCloseTo(0.35);
  // 93 of 100 and one more that does not are fewer than 93 in 100 of 101: the second is offered, too.
  expect(sumFor(evidenceOf(judged, past), 0.93)).toBeCloseTo(0.61, 1);
  expect(sumFor(evidenceOf(judged, past.slice(1)), 0.5)).toBe(0.5);
  expect(LEAST_PAST).toBe(100);
});

test('the temperature makes claims what they are', () => {
  // Scores that claim 88 % for what is right in three of four: ln 3 would be the right score.
  const judged = Array.from({ length: 400 }, (_, i) => ({
    scores: Float64Array.from([2, 0]),
    label: i % 4 === 0 ? 1 : 0,
  }));
  const temperature = findTemperature(judged);
  expect(softmax(judged[0]!.scores, temperature)[0]).toBeCloseTo(0.75, 2);
});

test('the calibration error is that of a sum worked out by hand', () => {
  // Naeini, Cooper, Hauskrecht, Obtaining well calibrated probabilities using Bayesian binning (AAAI 2015), definition
  // of the expected calibration error: |0.95 − 2/3| × 3/5 + |0.55 − 1/2| × 2/5 = 0.19.
  const claim = (sureness: number, isRight: boolean) => ({ sureness, isRight });
  expect(
    calibrationError([
      claim(0.95, true),
      claim(0.95, true),
      claim(0.95, false),
      claim(0.55, true),
      claim(0.55, false),
    ]),
  ).toBeCloseTo(0.19, 9);
});

test('matters that are taken for each other are named, and phrasings that stand with two', () => {
  const doubled = [...MATTERS, { id: 'again', phrasings: en('new password', 'second', 'third one') }];
  expect(listDoubles(doubled)).toEqual([{ text: 'new password', ids: ['password', 'again'] }]);
  expect(listConfusions([{ id: 'a', text: 'x', likely: [{ id: 'b', sureness: 1 }] }])).toEqual([
    { id: 'a', takenForId: 'b', phrasings: ['x'] },
  ]);
});

test('passwords and card numbers are masked; other numbers stay', () => {
  // The example number of ISO/IEC 7812-1 as it is given in textbooks (from memory): 4539 1488 0343 6467.
  expect(isCardNumber('4539 1488 0343 6467')).toBe(true);
  expect(isCardNumber('4539 1488 0343 6468')).toBe(false);
  expect(maskSecrets('my password is tern77, card 4539148803436467, ticket 13346')).toEqual({
    text: 'my password is •••• card ••••, ticket 13346',
    isMasked: true,
  });
  for (const [said, masked] of [
    ['a password e Andorinha77', 'a password e ••••'],
    ['a palavra-passe é andorinha', 'a palavra-passe é ••••'],
    ['Password: Tern!', 'Password: ••••'],
    ['my pin 4711', 'my pin ••••'],
    ['password was swordfish and now it is not', 'password was •••• and now it is not'],
  ] as const)
    expect(maskSecrets(said).text).toBe(masked);
  for (const said of [
    'my password is wrong.',
    'password is not accepted',
    'a palavra-passe e o telefone',
    'a senha está expirada',
    'new password for kiosk 3',
    'a spin 2024 poster',
    'Password: forgotten',
  ])
    expect(maskSecrets(said)).toEqual({ text: said, isMasked: false });
});

const t = (text: string) => ({ en: text, pt: text });
const KIOSK: Matter = {
  id: 'kiosk',
  serviceId: 'kiosk',
  steps: [
    { kind: 'say', text: t('I see.') },
    { kind: 'ask', text: t('Which kiosk?'), field: 'kiosk', choices: [] },
    { kind: 'article', articleId: 'kiosk-frozen' },
    { kind: 'ticket' },
  ],
};
const matterOf = (id: string): Matter | undefined =>
  id === 'kiosk'
    ? KIOSK
    : id === 'badge'
      ? { id, serviceId: 'badge', steps: [{ kind: 'person' }] }
      : undefined;
const confirm: Input = { kind: 'words', text: 'kiosk', offer: { kind: 'confirm', ids: ['kiosk'] } };
const play = (...inputs: Input[]) =>
  inputs.reduce<Next>((last, input) => proceed(last.talk, input, matterOf), { talk: NEW_TALK, turns: [] });

test('a matter is confirmed and walked, each answer in its field, until it is solved or a ticket', () => {
  const pick: Input = { kind: 'pick', id: 'kiosk' };
  expect(play(confirm).turns).toEqual([{ say: 'confirm', matterIds: ['kiosk'] }]);
  expect(play(confirm, pick).turns.map((turn) => ('say' in turn ? turn.say : turn.do))).toEqual([
    'text',
    'question',
  ]);
  const third: Input = { kind: 'words', text: '3', offer: { kind: 'reword', ids: [] } };
  const shown = play(confirm, pick, third);
  expect(shown.talk.fields).toEqual({ kiosk: '3' });
  expect(shown.turns).toEqual([{ say: 'article', articleId: 'kiosk-frozen' }]);
  expect(play(confirm, pick, third, { kind: 'helped', helped: true }).talk.outcome).toBe('solved');
  expect(play(confirm, pick, third, { kind: 'helped', helped: false }).turns).toEqual([
    { do: 'ticket', serviceId: 'kiosk', teamId: null, isHandOver: false },
  ]);
});

test('when nothing fits: other words once, then passages, then who should have it', () => {
  const nothing: Input = { kind: 'words', text: 'hm', offer: { kind: 'reword', ids: [] } };
  const sayOf = (...inputs: Input[]) => play(...inputs).turns[0];
  expect(sayOf(nothing)).toEqual({ say: 'reword' });
  expect(sayOf(nothing, nothing)).toEqual({ say: 'passages' });
  expect(sayOf(nothing, nothing, { kind: 'helped', helped: false })).toEqual({ say: 'teams' });
  expect(sayOf(nothing, nothing, { kind: 'none' }, { kind: 'team', id: 'network' })).toEqual({
    ...{ do: 'ticket', serviceId: null, teamId: 'network', isHandOver: true },
  });
  // What was refused is not offered again.
  expect(sayOf(confirm, { kind: 'none' }, confirm)).toEqual({ say: 'passages' });
});

test('of two matters the one that was picked is dealt with, then the other is named; once', () => {
  const both: Input = {
    kind: 'words',
    text: 'kiosk and pens',
    offer: { kind: 'both', ids: ['kiosk', 'pens'] },
  };
  const of = (id: string): Matter | undefined =>
    id === 'pens' ? { id, serviceId: 'stores', steps: [{ kind: 'form' }] } : matterOf(id);
  const asked = proceed(NEW_TALK, both, of);
  expect(asked.turns).toEqual([{ say: 'both', matterIds: ['kiosk', 'pens'] }]);
  const done = proceed(asked.talk, { kind: 'pick', id: 'pens' }, of);
  expect(done.turns).toEqual([
    { say: 'form', serviceId: 'stores' },
    { say: 'other', matterIds: ['kiosk'] },
  ]);
  expect(done.talk).toMatchObject({ phase: 'ended', outcome: 'form', later: [] });
  // Whoever goes to a person takes all of it along.
  expect(proceed(asked.talk, { kind: 'person' }, of).turns).toHaveLength(1);
  // Words that are about one matter alone come back to nothing.
  const anew = proceed(
    asked.talk,
    { kind: 'words', text: 'pens', offer: { kind: 'confirm', ids: ['pens'] } },
    of,
  );
  expect(proceed(anew.talk, { kind: 'pick', id: 'pens' }, of).turns).toEqual([
    { say: 'form', serviceId: 'stores' },
  ]);
});

test.each([
  ['good morning', 'hello'],
  ['obrigado', 'welcome'],
])('%s is answered as such, and the conversation stands where it stood', (text, say) => {
  const asked = play(confirm).talk;
  const next = proceed(asked, { kind: 'words', text, offer: { kind: 'reword', ids: [] } }, matterOf);
  expect(next).toEqual({ talk: asked, turns: [{ say }] });
});

test('its ticket is called by what the matter was understood by; without one, by what was said first', () => {
  const asked: Input = { kind: 'words', text: 'it does not work', offer: { kind: 'reword', ids: [] } };
  const second = proceed(proceed(NEW_TALK, asked, matterOf).talk, confirm, matterOf).talk;
  expect(titleOf(second)).toBe('it does not work');
  expect(titleOf(proceed(second, { kind: 'pick', id: 'kiosk' }, matterOf).talk)).toBe('kiosk');
});

test('no conversation goes round in circles, and a person can be had at any moment', () => {
  const input = fc.oneof(
    fc.constant(confirm),
    fc.constant<Input>({ kind: 'none' }),
    fc.constant<Input>({ kind: 'helped', helped: false }),
    fc.constant<Input>({ kind: 'words', text: 'x', offer: { kind: 'choose', ids: ['kiosk', 'badge'] } }),
    fc.constant<Input>({ kind: 'pick', id: 'kiosk' }),
  );
  fc.assert(
    fc.property(fc.array(input, { maxLength: 40 }), (inputs) => {
      let talk = NEW_TALK;
      let reworded = 0;
      for (const each of inputs) {
        const next = proceed(talk, each, matterOf);
        reworded += next.turns.filter((turn) => 'say' in turn && turn.say === 'reword').length;
        for (const turn of next.turns)
          if ('matterIds' in turn) for (const id of turn.matterIds) expect(talk.refused).not.toContain(id);
        talk = next.talk;
      }
      expect(reworded).toBeLessThanOrEqual(1);
      if (talk.phase !== 'ended')
        expect(proceed(talk, { kind: 'person' }, matterOf).talk.outcome).toBe('handedOver');
    }),
  );
});

test('silence: asked after five minutes, come back to after an hour, closed an hour later, and then no more', () => {
  const MINUTE = 60_000;
  expect(afterSilence(0, [])).toEqual({ word: 'stillThere', at: 5 * MINUTE });
  expect(afterSilence(0, ['stillThere'])).toEqual({ word: 'followUp', at: 60 * MINUTE });
  expect(afterSilence(0, ['stillThere', 'followUp'])).toEqual({ word: 'closed', at: 120 * MINUTE });
  expect(afterSilence(0, ['closed'])).toBeNull();
});

test('a matter waits for others to agree, goes on when they have, and writes one ticket alone', () => {
  const matter: Matter = {
    ...{ id: 'tablet', serviceId: 'bridge-tablet' },
    steps: [{ kind: 'approval' }, { kind: 'say', text: { en: 'Fetch it.', pt: '' } }, { kind: 'ticket' }],
  };
  const of = () => matter;
  const offered = { ...NEW_TALK, phase: 'confirm' as const, offered: ['tablet'] };
  const waiting = proceed(offered, { kind: 'pick', id: 'tablet' }, of);
  expect(waiting.turns).toMatchObject([{ do: 'ticket', serviceId: 'bridge-tablet' }, { say: 'waiting' }]);
  expect(waiting.talk.phase).toBe('waiting');
  const words: Input = { kind: 'words', text: 'And now?', offer: { kind: 'reword', ids: [] } };
  expect(proceed(waiting.talk, words, of)).toEqual({ talk: waiting.talk, turns: [{ say: 'waiting' }] });
  const agreed = proceed(waiting.talk, { kind: 'decided', isAgreed: true }, of);
  expect(agreed.turns).toMatchObject([{ say: 'agreed' }, { say: 'text' }]);
  expect(agreed.talk).toMatchObject({ phase: 'ended', outcome: 'ticket' });
  const not = proceed(waiting.talk, { kind: 'decided', isAgreed: false }, of);
  expect(not).toMatchObject({ talk: { phase: 'ended' }, turns: [{ say: 'notAgreed' }] });
  const person = proceed(waiting.talk, { kind: 'person' }, of);
  expect(person.turns.some((turn) => 'do' in turn)).toBe(false);
});
