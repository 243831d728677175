import type { Problem } from '../../contract/problem';
import { ApiProblem } from '../api/call';

const BASE = '/stand-in/rooms';

/** Calls the workplace chat. @throws ApiProblem */
export async function callRooms<T>(method: string, path: string, body?: object): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(BASE + path, {
      method,
      ...(body && { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new ApiProblem(null);
  }
  if (answer.ok) return (await answer.json()) as T;
  const isProblem = answer.headers.get('Content-Type')?.includes('json');
  throw new ApiProblem(isProblem ? ((await answer.json()) as Problem) : null);
}

export async function sendFile(file: File): Promise<{ id: string; name: string }> {
  const answer = await fetch(`${BASE}/files`, {
    method: 'POST',
    headers: {
      'Content-Type': file.type || 'application/octet-stream',
      'X-File-Name': encodeURIComponent(file.name),
    },
    body: file,
  });
  if (!answer.ok) throw new ApiProblem((await answer.json()) as Problem);
  return (await answer.json()) as { id: string; name: string };
}

export const fileAddress = (id: string): string => `${BASE}/files/${id}`;
export const LIVE_ADDRESS = `${BASE}/live`;
