import type { Response } from 'express';

/** A reader who has not taken in so many bytes is gone, or too slow: it is let go, and comes back by itself. */
const MOST_WAITING = 1_000_000;

/** Begins a stream of events (HTML Living Standard, server-sent events). It ends with its connection. */
export function beginStream(response: Response): void {
  response.writeHead(200, {
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-store',
    'X-Accel-Buffering': 'no',
  });
  response.write('retry: 1000\n\n');
}

/** Sends a piece to a reader, as long as they keep pace. @returns whether they still read */
export function sendPiece(response: Response, piece: string | Buffer): boolean {
  const to = response.socket ?? response;
  if (to.destroyed || to.writableLength > MOST_WAITING) {
    to.destroy();
    return false;
  }
  // Straight to the connection where the stream is not in chunks: what HTTP adds to a piece costs as much as the piece.
  (response.useChunkedEncodingByDefault ? response : to).write(piece);
  return true;
}
