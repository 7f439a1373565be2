import { join } from 'node:path';
import { createGenerator } from 'ts-json-schema-generator';
import { ROOT } from './run.mjs';

/** Stands before the names of answers, as bodies are described beside them. */
const PREFIX = 'Answer.';

/**
 * Returns what core's types say of the answers of the API, as JSON Schema: `calls` by the name of the call, with null for
 * an empty answer, and `schemas` for the types that they name.
 */
export function answerSchemas() {
  const file = join(ROOT, 'core/src/api/calls.ts');
  const setting = { path: file, tsconfig: join(ROOT, 'core/tsconfig.json'), type: 'Calls' };
  const { properties, definitions } = createGenerator({
    ...setting,
    topRef: false,
    encodeRefs: false,
    skipTypeCheck: true,
  }).createSchema('Calls');
  const calls = Object.fromEntries(
    Object.entries(properties).map(([name, { properties: of }]) => [
      name,
      of.answer.type === 'null' ? null : named(of.answer),
    ]),
  );
  const schemas = {};
  const take = (schema) => {
    for (const [, name] of JSON.stringify(schema).matchAll(
      /"\$ref":"#\/components\/schemas\/Answer\.(\w+)"/g,
    )) {
      if (`${PREFIX}${name}` in schemas) continue;
      schemas[`${PREFIX}${name}`] = named(definitions[name]);
      take(schemas[`${PREFIX}${name}`]);
    }
  };
  take(calls);
  return { calls, schemas };
}

function named(schema) {
  const text = JSON.stringify(schema).replaceAll('"#/definitions/', `"#/components/schemas/${PREFIX}`);
  return JSON.parse(text);
}
