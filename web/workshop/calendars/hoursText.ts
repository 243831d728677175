import type { Window } from '../../../core/calendar';

/** Windows as one writes them: '08:00–12:00, 13:00–17:30'. */
export function toHoursText(windows: Window[]): string {
  return windows.map(({ from, to }) => `${from}–${to}`).join(', ');
}

const PART = /^(\d{1,2})(?::?(\d\d))?\s*(?:–|-|—|to|até)\s*(\d{1,2})(?::?(\d\d))?$/;
const pad = (hour: string, minute = '00'): string => `${hour.padStart(2, '0')}:${minute}`;

/**
 * Reads hours as people write them; null where they cannot be read. Whether a time exists is judged later, with the
 * whole calendar.
 * @example fromHoursText('8-12, 13:00–17:30') // [{ from: '08:00', to: '12:00' }, { from: '13:00', to: '17:30' }]
 */
export function fromHoursText(text: string): Window[] | null {
  if (text.trim() === '') return [];
  const windows: Window[] = [];
  for (const part of text.split(/[,;]/)) {
    const match = PART.exec(part.trim());
    if (!match) return null;
    const [, fromHour, fromMinute, toHour, toMinute] = match;
    windows.push({ from: pad(fromHour!, fromMinute), to: pad(toHour!, toMinute) });
  }
  return windows;
}
