import * as fc from 'fast-check';
import { choiceOf, countSteps, layOut, listSteps, type MatterStep } from './flow';
import { NEW_TALK, proceed, type Input, type Matter, type Next } from './index';

const t = (en: string, pt = en) => ({ en, pt });
const NOTHING = { kind: 'reword', ids: [] } as const;
const say = (text: string): Input => ({ kind: 'words', text, offer: { ...NOTHING, ids: [] } });
/** Is it the gate? Yes: the team. No: an article, and that is all. I do not know: another question, then on below. */
const MATTER: Matter = {
  id: 'screen',
  serviceId: 'screens',
  steps: [
    { kind: 'say', text: t('I see.') },
    {
      ...{ kind: 'ask', text: t('Is it at a gate?'), field: 'where' },
      choices: [t('Yes', 'Sim'), t('No', 'Não'), t('No idea', 'Não sei')],
      branches: [
        [{ kind: 'person' }],
        [{ kind: 'article', articleId: 'screen-off' }, { kind: 'end' }],
        [{ kind: 'ask', text: t('Which ferry?'), field: 'ferry', choices: [] }],
      ],
    },
    { kind: 'ticket' },
  ],
};
const matterOf = () => MATTER;
const play = (...inputs: Input[]): Next =>
  inputs.reduce<Next>((last, input) => proceed(last.talk, input, matterOf), {
    talk: { ...NEW_TALK, phase: 'confirm', offered: ['screen'] },
    turns: [],
  });
const PICK: Input = { kind: 'pick', id: 'screen' };
const namesOf = ({ turns }: Next): string[] => turns.map((turn) => ('do' in turn ? turn.do : turn.say));

test('yes leads to the team', () => {
  const { talk, turns } = play(PICK, say('yes, since this morning'));
  expect(talk).toMatchObject({ outcome: 'handedOver', fields: { where: 'yes, since this morning' } });
  expect(turns).toEqual([{ do: 'ticket', serviceId: 'screens', teamId: null, isHandOver: true }]);
});

test('no leads to an article; if it does not help, all is said, and no ticket is written', () => {
  expect(namesOf(play(PICK, say('Não')))).toEqual(['article']);
  expect(play(PICK, say('Não'), { kind: 'helped', helped: true }).talk.outcome).toBe('solved');
  const not = play(PICK, say('Não'), { kind: 'helped', helped: false });
  expect([namesOf(not), not.talk.outcome]).toEqual([['allSaid'], 'told']);
});

test('a branch that does not end leads back to what stands below its question, as does any other answer', () => {
  expect(namesOf(play(PICK, say('No idea')))).toEqual(['question']);
  const on = play(PICK, say('no idea'), say('Gannet'));
  expect(on.talk).toMatchObject({ outcome: 'ticket', fields: { where: 'no idea', ferry: 'Gannet' } });
  expect(play(PICK, say('the blue one')).talk.outcome).toBe('ticket');
});

test.each([
  ['Yes', 0],
  ['  sim, claro ', 0],
  ['nao', 1],
  ['no idea at all', 2],
  ['nobody', -1],
  ['yesterday', -1],
  ['I said yes', -1],
])('“%s” means choice %i', (words, choice) => {
  expect(choiceOf([t('Yes', 'Sim'), t('No', 'Não'), t('No idea', 'Não sei')], words)).toBe(choice);
});

test('each step is read with the way to it', () => {
  expect(listSteps(MATTER.steps).map(({ way, step }) => `${way} ${step.kind}`)).toEqual([
    ...['1 say', '2 ask', '2.1.1 person', '2.2.1 article', '2.2.2 end', '2.3.1 ask', '3 ticket'],
  ]);
});

/** Any steps, with questions three levels deep. */
const SIMPLE: MatterStep[] = [
  { kind: 'say', text: t('x') },
  { kind: 'article', articleId: 'a' },
  { kind: 'end' },
];
const stepsOf = (levels: number): fc.Arbitrary<MatterStep[]> => {
  const simple: fc.Arbitrary<MatterStep> = fc.constantFrom(...SIMPLE);
  if (levels === 0) return fc.array(simple, { maxLength: 4 });
  const ask: fc.Arbitrary<MatterStep> = fc
    .array(stepsOf(levels - 1), { maxLength: 3 })
    .map((branches) => ({ kind: 'ask', text: t('?'), field: 'f', choices: [t('a'), t('b')], branches }));
  return fc.array(fc.oneof(simple, ask), { maxLength: 4 });
};

/** Laws: each step has one place, those below each other stand in their order; and it only ever goes on, so that it ends. */
test('steps are laid out once each, and every way through them ends', () => {
  fc.assert(
    fc.property(stepsOf(3), (those) => {
      const placed = layOut(those);
      expect(placed).toHaveLength(countSteps(those));
      expect(placed.slice(0, those.length).map(({ step }) => step)).toEqual(those);
      const known = new Map<number, number | null>();
      const longest = (place: number): number => {
        const here = placed[place];
        if (!here) return 0;
        const before = known.get(place);
        if (before === null) throw new Error('It goes round.');
        if (before !== undefined) return before;
        known.set(place, null);
        const most = 1 + Math.max(...[here.next, ...here.byChoice].map(longest));
        known.set(place, most);
        return most;
      };
      expect(longest(0)).toBeLessThanOrEqual(placed.length);
    }),
  );
});
