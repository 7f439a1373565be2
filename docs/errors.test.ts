import { expect, it } from 'vitest';
import { PROBLEMS, type ProblemCode } from '../core/src/problems';

const INTRODUCTION = `# Error codes of the API

Every refused request is answered with a status of HTTP and a body of JSON:

\`\`\`json
{ "code": "end-before-start", "message": "The end is before the start. Move one of them.", "details": {} }
\`\`\`

- \`code\` is what a program should look at. Codes stay the same from version to version.
- \`message\` says what is wrong and what to do. It is for people, in English, or in German if \`Accept-Language\` asks for it.
- \`details\` has the facts that the message is made of, by the names that stand in braces below. \`version-conflict\` also
  carries the stored version (\`current\`) and the sent one (\`yours\`), and \`input-invalid\` each refused field with a reason
  (\`errors\`).

A status of 409 means that the request was right when it was written, but something has changed since. After 429 and 503,
\`Retry-After\` says when to try again, if it is there. The table is \`core/src/problems/table.ts\`; \`npx vitest run docs -u\`
writes this page again.

| Code | Status | Message |
|---|---|---|
`;

it('the page of error codes has every code with its status and its message', async () => {
  const lines = (Object.keys(PROBLEMS) as ProblemCode[])
    .sort()
    .map((code) => `| \`${code}\` | ${PROBLEMS[code].status} | ${PROBLEMS[code].say} |\n`);
  await expect(INTRODUCTION + lines.join('')).toMatchFileSnapshot('errors.md');
});
