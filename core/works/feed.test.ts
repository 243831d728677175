import nodeIcal from 'node-ical';
import { toFeed, type FeedEvent } from './feed';

const at = (text: string): number => Date.parse(`${text}:00Z`);
const event: FeedEvent = {
  ...{ uid: 'work-7@listo', summary: 'New switch, hall; level 2', description: 'Line one\nLine two' },
  ...{ fromAt: at('2026-03-28T23:30'), toAt: at('2026-03-29T02:30'), sequence: 3, isTentative: true },
  url: 'https://listo.example/estate/works/7',
};

// RFC 5545, read by a parser that is not ours (node-ical).
test('the calendar of work is read back by another parser as it was written, over a clock change too', () => {
  const text = toFeed(
    'Work at Solvarra',
    [event, { ...event, uid: 'freeze@listo', isTentative: false }],
    at('2026-03-01T00:00'),
  );
  const read = Object.values(nodeIcal.sync.parseICS(text)).filter((each) => each?.type === 'VEVENT');
  expect(read).toHaveLength(2);
  expect(read[0]).toMatchObject({
    ...{ uid: event.uid, summary: event.summary, description: event.description, status: 'TENTATIVE' },
    url: event.url,
  });
  expect((read[0] as unknown as { start: Date }).start.getTime()).toBe(event.fromAt);
  expect((read[0] as unknown as { end: Date }).end.getTime()).toBe(event.toAt);
});

// RFC 5545, 3.1: lines end with CRLF and are at most 75 octets.
test('lines are folded and end as the standard says', () => {
  const text = toFeed('Work', [{ ...event, summary: 'ã'.repeat(200) }], 0);
  expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  expect(text.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
});
