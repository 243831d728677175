import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { BIA, show } from '../testing/show';
import { DayInput } from './DayInput';
import { InstantInput } from './InstantInput';
import { TimeInput } from './TimeInput';

/** Fields for days and times, in the reader's own form and zone. */
function Held({ min }: { min?: string }) {
  const [day, setDay] = useState('');
  const [time, setTime] = useState('');
  return (
    <>
      <DayInput label="Day" value={day} {...(min && { min })} onChange={setDay} />
      <TimeInput label="Hour" value={time} onChange={setTime} />
      <output>{`${day} ${time}`}</output>
    </>
  );
}
const said = (): string | null => screen.getByRole('status').textContent;
const type = (label: string, value: string): void => {
  const field = screen.getByLabelText<HTMLInputElement>(label);
  fireEvent.focus(field);
  fireEvent.change(field, { target: { value } });
  fireEvent.blur(field);
};
const shown = (label: string): string => screen.getByLabelText<HTMLInputElement>(label).value;

test('a day is typed as people write it, and shown so that nobody mistakes it', async () => {
  await show(<Held />);
  type('Day', '4/3/2027');
  expect(said()).toBe('2027-03-04 ');
  expect(shown('Day')).toBe('4 Mar 2027');
  // What is no day does not take the place of one.
  type('Day', 'soon');
  expect(said()).toBe('2027-03-04 ');
  expect(shown('Day')).toBe('4 Mar 2027');
  type('Day', '');
  expect(said()).toBe(' ');
});

test('in Portuguese the month has its Portuguese name', async () => {
  await show(<Held />, { language: 'pt' });
  type('Day', '24 de dezembro de 2026');
  expect(shown('Day')).toBe('24 dez 2026');
});

test('a day before the first one that may be chosen is not taken', async () => {
  await show(<Held min="2026-12-10" />);
  type('Day', '9.12.2026');
  expect(said()).toBe(' ');
  type('Day', '10.12.2026');
  expect(said()).toBe('2026-12-10 ');
});

test('a time is that of a day of 24 hours, by its parts', async () => {
  const user = userEvent.setup({ delay: null });
  await show(<Held />);
  await user.type(screen.getByLabelText('Hour: hour'), '1745');
  expect(said()).toBe(' 17:45');
  await user.click(screen.getByRole('button', { name: 'Hour: no time', hidden: true }));
  expect(said()).toBe(' ');
});

function Instant() {
  const [at, setAt] = useState<number | null>(null);
  return (
    <>
      <InstantInput label="Until" value={at} onChange={setAt} />
      <output>{at === null ? 'none' : new Date(at).toISOString()}</output>
    </>
  );
}

test('an instant is in the reader’s zone; a day alone means its morning; an hour that is left out is none', async () => {
  await show(<Instant />, { me: { ...BIA, timeZone: 'America/New_York' } });
  type('Until', '1.12.2026');
  expect(said()).toBe('2026-12-01T14:00:00.000Z');
  type('Until: hour', '12');
  expect(said()).toBe('2026-12-01T17:00:00.000Z');
  // On 14 March 2027 clocks there go from 02:00 to 03:00.
  type('Until', '14.3.2027');
  type('Until: hour', '02');
  expect(said()).toBe('none');
  expect(screen.getByText(/does not exist|put forward|no such time/i)).toBeTruthy();
});
