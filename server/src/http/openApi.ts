import { PROBLEMS } from '@zonal/core/problems';
import { existsSync, readFileSync } from 'node:fs';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import type { Route } from './route';

/** What core's types say of the answers, as the build writes it down. */
interface AnswerSchemas {
  /** By the name of the call; null for an empty answer. */
  readonly calls: Readonly<Record<string, object | null>>;
  readonly schemas: Readonly<Record<string, object>>;
}

/** Returns the schemas in a file; none where there is no file, as when the sources run unbuilt. */
export function answersIn(file: string): AnswerSchemas {
  if (!file || !existsSync(file)) return { calls: {}, schemas: {} };
  return JSON.parse(readFileSync(file, 'utf8')) as AnswerSchemas;
}

/**
 * Returns the OpenAPI 3.1 description of the organiser's API: bodies by the classes that check them, answers by core's
 * types.
 */
export function openApi(routes: readonly Route[], publicUrl: string, answers: AnswerSchemas): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const r of routes) {
    const path = `/api${r.path.replace(/:(\w+)/g, '{$1}')}`;
    (paths[path] ??= {})[r.method] = operation(r, answers.calls[r.name]);
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Zonal Window: the organiser’s API', version: '0.1.0' },
    servers: [{ url: publicUrl }],
    components: {
      schemas: {
        ...validationMetadatasToSchemas({ refPointerPrefix: '#/components/schemas/' }),
        ...answers.schemas,
        Error: {
          type: 'object',
          required: ['code', 'message', 'details'],
          properties: {
            code: { type: 'string', enum: Object.keys(PROBLEMS) },
            message: { type: 'string' },
            details: { type: 'object' },
          },
        },
      },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'zonal.sid' } },
    },
    paths,
  };
}

function operation(r: Route, answer: object | null | undefined): object {
  const names = [...r.path.matchAll(/:(\w+)/g)].map((m) => m[1]!);
  const parameters = [
    ...names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
    ...Object.entries(r.query ?? {}).map(([name, description]) => ({
      name,
      in: 'query',
      description,
      schema: { type: 'string' },
    })),
  ];
  const content = r.body
    ? { 'application/json': { schema: { $ref: `#/components/schemas/${r.body.name}` } } }
    : r.upload && Object.fromEntries(r.upload.map((type) => [type, {}]));
  const answerContent = answer ? { 'application/json': { schema: answer } } : r.sends && { [r.sends]: {} };
  return {
    summary: r.summary,
    tags: [r.tag],
    ...(parameters.length ? { parameters } : {}),
    ...(content ? { requestBody: { required: true, content } } : {}),
    ...(r.open ? { security: [] } : { security: [{ session: [] }] }),
    responses: {
      [answer === null && !r.sends ? 204 : (r.status ?? 200)]: {
        description: 'Done',
        ...(answerContent ? { content: answerContent } : {}),
      },
      default: {
        description: 'Refused; the code says why',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } },
      },
    },
  };
}
