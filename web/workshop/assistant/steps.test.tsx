import { fireEvent, screen, within } from '@testing-library/react';
import { useState } from 'react';
import type { MatterStep } from '../../../core/assistant';
import '../../messages/assistantWords';
import { standIn } from '../../testing/server';
import { show } from '../../testing/show';
import { readChoices, Steps } from './Steps';

/** The flow of a matter, with the steps that an answer leads to. */
standIn();
let kept: MatterStep[] = [];

function Kept({ begun, isFixed = false }: { begun: MatterStep[]; isFixed?: boolean }) {
  const [steps, setSteps] = useState(begun);
  const onChange = (next: MatterStep[]): void => {
    kept = next;
    setSteps(next);
  };
  return <Steps {...{ steps, isFixed, onChange }} articles={[{ id: 'a', title: 'Screens' }]} />;
}
const ASK: MatterStep = {
  ...{ kind: 'ask', text: { en: 'At a gate?', pt: 'Numa porta?' }, field: 'where', choices: [] },
};

test('choices are told apart by commas in either language, and get the steps that they lead to', async () => {
  await show(<Kept begun={[ASK, { kind: 'ticket' }]} />);
  const english = screen.getByRole('textbox', { name: /^Choices.*, en$/ });
  fireEvent.change(english, { target: { value: 'Yes, No' } });
  fireEvent.blur(english);
  const portuguese = screen.getByRole('textbox', { name: /^Choices.*, pt$/ });
  expect(portuguese).toHaveProperty('value', 'Yes, No');
  fireEvent.change(portuguese, { target: { value: 'Sim, Não' } });
  fireEvent.blur(portuguese);
  const no = screen.getByRole('region', { name: 'If “No”' });
  expect(within(no).getByText('goes on below')).toBeTruthy();
  fireEvent.click(within(no).getByRole('button', { name: 'Steps for “No”' }));
  fireEvent.change(within(no).getByRole('combobox', { name: 'Step 1.2.1' }), { target: { value: 'end' } });
  expect(within(no).queryByText('goes on below')).toBeNull();
  expect(kept).toEqual([
    {
      ...{
        ...ASK,
        choices: [
          { en: 'Yes', pt: 'Sim' },
          { en: 'No', pt: 'Não' },
        ],
      },
      branches: [[], [{ kind: 'end' }]],
    },
    { kind: 'ticket' },
  ]);
  fireEvent.click(within(no).getByRole('button', { name: 'Leave out Step 1.2.1' }));
  expect(kept[0]).toMatchObject({ branches: [[], []] });
});

test('who may not change it reads it whole', async () => {
  const choices = [{ en: 'Yes', pt: 'Sim' }];
  const begun = [{ ...ASK, choices, branches: [[{ kind: 'person' as const }]] }];
  await show(<Kept isFixed begun={begun} />);
  expect(screen.getByRole('combobox', { name: 'Step 1.1.1' })).toHaveProperty('value', 'person');
  expect(screen.queryByRole('button', { name: /Steps for|Add a step|Leave out/ })).toBeNull();
});

test('what one language lacks is said as in the other', () => {
  expect(readChoices({ en: 'Yes, ,No', pt: 'Sim' })).toEqual([
    { en: 'Yes', pt: 'Sim' },
    { en: 'No', pt: 'No' },
  ]);
});
