import * as z from 'zod';
import type { ZodOpenApiOperationObject } from 'zod-openapi';
import { api } from '../../contract';
import { problemSchema } from '../../contract/problem';
import { recordFilterSchema } from '../../contract/records';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const bytes = { type: 'string', contentMediaType: 'application/octet-stream' } as const;
const named = z.object({ id: z.string() });

export const PROBLEM = {
  description: 'A problem',
  content: { 'application/problem+json': { schema: problemSchema } },
};

type Sent = {
  path: string;
  id: string;
  summary: string;
  types: string[];
  params?: z.ZodObject;
  query?: z.ZodObject;
};

/** What is read as a file or a stream, beside what is read as JSON. */
const SENT: Sent[] = [
  {
    ...{ path: '/files/{id}', id: 'files.read', summary: 'A file that was sent', params: named },
    types: ['application/octet-stream'],
  },
  {
    ...{ path: '/worklists/{id}/export', id: 'worklists.export', params: named },
    summary: 'Any list as a table, row by row as it is read',
    query: z.object({ format: z.enum(['csv', 'xlsx']).optional(), where: z.string().optional() }),
    types: ['text/csv', XLSX],
  },
  {
    ...{ path: '/compliance.csv', id: 'compliance.export', types: ['text/csv'] },
    summary: 'How targets were kept, a ticket a row',
    query: api.compliance.tickets.query as z.ZodObject,
  },
  {
    ...{ path: '/conversations/{id}/transcript', id: 'conversations.transcript', params: named },
    summary: 'What was said in a conversation',
    query: z.object({ as: z.enum(['text', 'pdf']).optional() }),
    types: ['text/plain', 'application/pdf'],
  },
  {
    ...{ path: '/calendars/{id}/calendar.ics', id: 'calendars.export', params: named },
    summary: 'A working calendar as iCalendar (RFC 5545)',
    types: ['text/calendar'],
  },
  {
    ...{ path: '/records/out', id: 'records.export', types: ['application/x-ndjson', 'text/csv'] },
    summary: 'The record of what was done, as JSON lines or as a table',
    query: recordFilterSchema.extend({ format: z.enum(['jsonl', 'csv']).optional() }),
  },
  {
    ...{ path: '/my/archive', id: 'privacy.mine', types: ['application/zip'] },
    summary: 'Everything that is known of me, as one archive',
  },
  {
    ...{
      path: '/workshop/people/{id}/archive',
      id: 'privacy.archive',
      params: named,
      types: ['application/zip'],
    },
    summary: 'Everything that is known of somebody, as one archive',
  },
  {
    ...{ path: '/live', id: 'live.listen', types: ['text/event-stream'] },
    summary: 'What changes, as server-sent events, by the rights of the listener',
  },
  {
    ...{ path: '/conversations/live', id: 'conversations.listen', types: ['text/event-stream'] },
    summary: 'What changes in live conversations, as server-sent events',
  },
];

/** These take a file, as a form of one part. */
export const UPLOADS = new Set(['files.upload', 'imports.upload']);
export const UPLOAD_BODY: NonNullable<ZodOpenApiOperationObject['requestBody']> = {
  content: {
    'multipart/form-data': {
      schema: { type: 'object', properties: { file: bytes }, required: ['file'] },
    },
  },
};

/** The operations whose answer is no JSON, by their path. */
export function listSent(): [path: string, operation: ZodOpenApiOperationObject][] {
  return SENT.map(({ path, id, summary, types, params, query }) => [
    path,
    {
      operationId: id,
      tags: [id.split('.')[0]!],
      summary,
      requestParams: { ...(params && { path: params }), ...(query && { query }) },
      responses: {
        '200': {
          description: 'What was asked for',
          content: Object.fromEntries(types.map((type) => [type, { schema: bytes }])),
        },
        default: PROBLEM,
      },
    },
  ]);
}
