import * as z from 'zod';
import { createDocument, type ZodOpenApiOperationObject, type ZodOpenApiPathsObject } from 'zod-openapi';
import { api } from '../../contract';
import type { Endpoint } from '../../contract/endpoint';
import { listSent, PROBLEM, UPLOAD_BODY, UPLOADS } from './openapiFiles';

const JSON_TYPE = 'application/json';

function toOperation(
  id: string,
  { summary, params, query, body, answer, method, isOpen, isForPeople }: Endpoint,
): ZodOpenApiOperationObject {
  const key = z.object({ 'Idempotency-Key': z.string().optional() });
  return {
    operationId: id,
    tags: [id.split('.')[0]!],
    summary,
    ...(isOpen && { security: [] }),
    ...(isForPeople && { description: 'About the person who calls: programs are refused.' }),
    requestParams: {
      ...(params && { path: params as z.ZodObject }),
      ...(query && { query: query as z.ZodObject }),
      ...(method === 'post' && { header: key }),
    },
    ...(UPLOADS.has(id) && { requestBody: UPLOAD_BODY }),
    ...(body && { requestBody: { content: { [JSON_TYPE]: { schema: body } } } }),
    responses: {
      '200': { description: 'What was asked for', content: { [JSON_TYPE]: { schema: answer } } },
      default: PROBLEM,
    },
  };
}

/** The OpenAPI 3.1 description of everything under /api/v1, made from the contracts. */
export function createApiDescription() {
  const paths: ZodOpenApiPathsObject = {};
  for (const [subject, endpoints] of Object.entries(api))
    for (const [name, endpoint] of Object.entries(endpoints) as [string, Endpoint][]) {
      const path = endpoint.path.replace(/:(\w+)/g, '{$1}');
      paths[path] = { ...paths[path], [endpoint.method]: toOperation(`${subject}.${name}`, endpoint) };
    }
  for (const [path, operation] of listSent()) paths[path] = { ...paths[path], get: operation };
  return createDocument(
    {
      ...{ openapi: '3.1.0', info: { title: 'Listo', version: '1' }, servers: [{ url: '/api/v1' }], paths },
      security: [{ key: [] }, { session: [] }],
      components: {
        securitySchemes: {
          key: { type: 'http', scheme: 'bearer', description: 'The key of a program.' },
          session: { type: 'apiKey', in: 'cookie', name: 'listo-session', description: 'Who is signed in.' },
        },
      },
    },
    {
      override: ({ jsonSchema, zodSchema }) =>
        zodSchema._zod.def.type === 'custom' ? void (jsonSchema.type = 'object') : undefined,
    },
  );
}
