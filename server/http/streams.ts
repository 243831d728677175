import type { Request } from 'express';

/** What stays open and is written to as things happen. */
const STREAMS = ['/api/v1/live', '/stand-in/rooms/live', '/api/v1/conversations/live'];

export function isStream({ originalUrl }: Pick<Request, 'originalUrl'>): boolean {
  return STREAMS.some((address) => originalUrl.startsWith(address));
}
