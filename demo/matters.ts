import type { Impact, Urgency } from '../core/tickets';

/** What people put to a service, in their words, and how it usually goes. */
export type Matter = {
  serviceId: string;
  /** `{place}` becomes where it is. */
  title: string;
  what: string;
  impact: Impact;
  urgency: Urgency;
  answer: string;
  /** A question that holds it for the requester. */
  question?: string;
  note?: string;
  solution: string;
  /** How often it comes, against the others. */
  weight: number;
};

const m = (
  serviceId: string,
  [impact, urgency, weight]: [Impact, Urgency, number],
  title: string,
  what: string,
  [answer, solution, question, note]: [string, string, string?, string?],
): Matter => ({
  serviceId,
  impact,
  urgency,
  weight,
  title,
  what,
  answer,
  solution,
  ...(question && { question }),
  ...(note && { note }),
});

export const MATTERS: Matter[] = [
  m(
    'gate-broken',
    ['site', 'stopsWork', 2],
    'Gate scanner rejects season passes',
    'Every season pass shows red. Day tickets work.',
    [
      'We see it. Please let season passes through by hand for now.',
      'The pass list was renewed on the gate; three passes tested.',
      'Does it happen on all gates or only on this one?',
      'Same firmware as at the other terminals. Worth comparing.',
    ],
  ),
  m(
    'gate-broken',
    ['team', 'slowsWork', 4],
    'Turnstile sticks half way',
    'One in ten people has to push twice.',
    ['Someone comes by with the tool this shift.', 'Hinge cleaned and tightened.'],
  ),
  m(
    'gate-broken',
    ['team', 'canWait', 3],
    'Gate screen shows the wrong sailing',
    'It still shows the sailing before.',
    [
      'Thank you, we are pushing the timetable again.',
      'Timetable pushed; the screen follows within a minute now.',
    ],
  ),
  m(
    'kiosk',
    ['team', 'stopsWork', 4],
    'Kiosk {n} frozen on payment',
    'Stops at “present your card”. Restarted it twice.',
    [
      'On it. Please send people to the other kiosks for now.',
      'The reader had lost its key; a new one is in place.',
      'Does the small screen of the reader show a number?',
      'Second one this week with E-71. One cause?',
    ],
  ),
  m(
    'kiosk',
    ['person', 'slowsWork', 3],
    'Kiosk {n} out of paper, door jammed',
    'Paper is there but the door does not open.',
    ['Please leave it; we bring the spare key.', 'Door freed, paper changed.'],
  ),
  m(
    'sea-link',
    ['site', 'slowsWork', 4],
    'Satellite link drops off {place}',
    'Gone for some minutes each time we pass the cape.',
    [
      'We are watching the link with you and will write on every drop.',
      'Moved to the second beam on that stretch; no drop since.',
      'Which way were you heading when it dropped?',
      'Supplier says the beam edge is there. Ticket open with them.',
    ],
  ),
  m(
    'sea-link',
    ['team', 'canWait', 3],
    'Crew network slow in the evenings',
    'Pages take a minute from 20:00 on.',
    ['Thank you. We look at tonight’s load.', 'Crew share raised in the evening hours.'],
  ),
  m(
    'bridge-tablet',
    ['person', 'slowsWork', 3],
    'Bridge tablet for MV {vessel}',
    'Screen stays black after the last update.',
    [
      'A spare is on its way with the next sailing.',
      'New tablet with charts handed over and tested.',
      'Which mount do you have, the short or the long one?',
    ],
  ),
  m('gate-scanner', ['team', 'canWait', 2], 'Two hand scanners for {place}', 'For the new car lanes.', [
    'They are ordered; we set them up before they ship.',
    'Scanners set up, delivered and tested.',
  ]),
  m(
    'roster',
    ['person', 'slowsWork', 5],
    'Roster shows the wrong shift',
    'I am down for the late shift, agreed was the early one.',
    [
      'We check it with your planner.',
      'Corrected in the roster; please look again.',
      'Who agreed the swap with you?',
    ],
  ),
  m('roster', ['team', 'canWait', 3], 'Roster app shows yesterday', 'The whole crew sees the day before.', [
    'We have it too and are looking.',
    'The time zone of the site was wrong in the roster. Corrected.',
  ]),
  m(
    'new-starter',
    ['person', 'canWait', 3],
    'New starter, terminal agent',
    'Starts next week, needs ticketing and roster.',
    [
      'All will be ready the day before.',
      'Accounts made, welcome sheet sent to the manager.',
      'Which terminal will be the base?',
    ],
  ),
  m('printing', ['team', 'slowsWork', 5], 'Cannot print boarding lists', 'The list stays in the queue.', [
    'We cleared the queue, please print once more.',
    'Queue cleared and the driver renewed.',
    'What does the printer’s panel say?',
  ]),
  m('printing', ['person', 'canWait', 3], 'Labels come out blank', 'Since the roll was changed.', [
    'The roll may be the wrong way round, we come by.',
    'Roll turned round, test label printed.',
  ]),
  m(
    'building',
    ['team', 'slowsWork', 4],
    'Door reader dead at {place}',
    'No light on it since this morning.',
    [
      'We are on the way with a key.',
      'Power supply of the reader replaced.',
      'Does the door next to it work?',
    ],
  ),
  m('building', ['team', 'canWait', 4], 'Heating stays cold', 'Fifteen degrees in the office.', [
    'The fitter comes this morning.',
    'Valve replaced.',
  ]),
  m('safety-gear', ['person', 'canWait', 5], 'Safety boots, size 46', 'The old ones let water in.', [
    'In stock, they go out today.',
    'Sent to your site; signed for.',
    'With or without the ankle guard?',
  ]),
  m('safety-gear', ['person', 'canWait', 3], 'Winter gloves for the deck crew', 'Four pairs, size 10.', [
    'We have three and order the fourth.',
    'All four sent.',
  ]),
  m(
    'invoice',
    ['person', 'canWait', 4],
    'Supplier invoice {n}07 queried',
    'The amount is not what was ordered.',
    [
      'We ask the supplier for the order.',
      'Credit note received; the invoice is corrected.',
      'Do you have the delivery note?',
    ],
  ),
  m(
    'in-confidence',
    ['person', 'canWait', 3],
    'Question about parental leave',
    'How do I split it between us?',
    [
      'Thank you for asking. Here is how it can be split.',
      'Talked through by phone; the form is with you.',
      'When is the date, roughly?',
      'First case with two home ports.',
    ],
  ),
];
