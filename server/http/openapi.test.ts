import { Validator } from '@seriousme/openapi-schema-validator';
import { api } from '../../contract';
import { createApiDescription } from './openapi';
import { PROBLEMS } from './problems';

test('the description is valid OpenAPI 3.1 and names every endpoint', async () => {
  const description = createApiDescription();
  const { valid, errors } = await new Validator().validate(
    structuredClone(description) as unknown as Record<string, unknown>,
  );
  expect(errors ?? []).toEqual([]);
  expect(valid).toBe(true);
  const described = Object.values(description.paths ?? {}).flatMap((path) =>
    Object.values(path).map((operation) => (operation as { operationId: string }).operationId),
  );
  const endpoints = Object.entries(api).flatMap(([subject, all]) =>
    Object.keys(all).map((name) => `${subject}.${name}`),
  );
  const sent = [
    ...['files.read', 'worklists.export', 'compliance.export', 'conversations.transcript'],
    ...['calendars.export', 'live.listen', 'conversations.listen', 'records.export'],
    ...['privacy.mine', 'privacy.archive'],
  ];
  expect(described.sort()).toEqual([...endpoints, ...sent].sort());
  const upload = description.paths?.['/files']?.post?.requestBody as { content: object };
  expect(Object.keys(upload.content)).toEqual(['multipart/form-data']);
});

test('every problem says what to do, with an error status', () => {
  for (const { status, title, wayOut } of Object.values(PROBLEMS)) {
    expect(status).toBeGreaterThanOrEqual(400);
    expect(title.length).toBeGreaterThan(3);
    expect(wayOut).toMatch(/\.$/);
  }
});
