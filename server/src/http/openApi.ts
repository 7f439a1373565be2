import { PROBLEMS } from '@zonal/core/problems';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import type { Route } from './route';

/** Returns the OpenAPI 3.1 description of the organiser's API, made from the routes and the validated classes. */
export function openApi(routes: readonly Route[], publicUrl: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const r of routes) {
    const path = `/api${r.path.replace(/:(\w+)/g, '{$1}')}`;
    (paths[path] ??= {})[r.method] = operation(r);
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Zonal Window: the organiser’s API', version: '0.1.0' },
    servers: [{ url: publicUrl }],
    components: {
      schemas: {
        ...validationMetadatasToSchemas({ refPointerPrefix: '#/components/schemas/' }),
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

function operation(r: Route): object {
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
  const content = r.body && {
    'application/json': { schema: { $ref: `#/components/schemas/${r.body.name}` } },
  };
  return {
    summary: r.summary,
    tags: [r.tag],
    ...(parameters.length ? { parameters } : {}),
    ...(content ? { requestBody: { required: true, content } } : {}),
    ...(r.open ? { security: [] } : { security: [{ session: [] }] }),
    responses: {
      [r.status ?? 200]: { description: 'Done' },
      default: {
        description: 'Refused; the code says why',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } },
      },
    },
  };
}
