import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type * as Entries from '../core/src/entries';
import type * as Forms from '../core/src/forms';
import type * as Glass from '../core/src/glass';
import type * as Reach from '../core/src/reach';
import { PAIRS } from '../core/src/testing/effort';
import type * as Samples from '../core/src/testing/samples';

const ROOT = join(import.meta.dirname, '..');

/** What the guide does to one file: pieces of it, each as it stands and as it stands afterwards. */
interface Step {
  readonly file: string;
  readonly pieces: readonly { readonly old: string; readonly next: string }[];
}

/** The steps of the guide: one for each block marked as a diff. */
const STEPS: readonly Step[] = [
  ...readFileSync(join(ROOT, 'docs/adding-a-field.md'), 'utf8').matchAll(/```diff\n--- (\S+)\n([^]*?)```/g),
].map(([, file, text]) => ({
  file: file!,
  pieces: text!.split('---\n').map((piece) => {
    const lines = piece.replace(/\n$/, '').split('\n');
    const without = (sign: string) =>
      lines
        .filter((line) => line[0] !== sign)
        .map((line) => line.slice(1))
        .join('\n');
    return { old: without('+'), next: without('-') };
  }),
}));

/** Returns a file as it stands after a step. Each piece must stand there exactly once. */
function after({ file, pieces }: Step): string {
  let text = readFileSync(join(ROOT, file), 'utf8');
  for (const { old, next } of pieces) {
    const parts = text.split(`${old}\n`);
    expect(parts.length - 1, `times that this stands in ${file}:\n${old}`).toBe(1);
    text = parts.join(`${next}\n`);
  }
  return text;
}

const PARTS = ['core', 'server', 'web'] as const;
/** Files as they stand, read once: most of them are the same for all programs of one part. */
const read = new Map<string, ts.SourceFile | undefined>();

/**
 * Returns the files that the compiler refuses after some steps, of all or of some; the test support of core counts too. It
 * looks at no part of which none is asked for.
 */
function refused(steps: readonly Step[], asked: (file: string) => boolean = () => true): string[] {
  const changed = new Map(steps.map((step) => [join(ROOT, step.file), after(step)]));
  const found = new Set<string>();
  for (const part of PARTS) {
    const folder = join(ROOT, part);
    const config = ts.readConfigFile(join(folder, 'tsconfig.json'), (path) => ts.sys.readFile(path));
    const { options, fileNames } = ts.parseJsonConfigFileContent(config.config, ts.sys, folder);
    const host = ts.createCompilerHost(options);
    const plain = host.getSourceFile.bind(host);
    host.getSourceFile = (path, version, ...rest) => {
      const text = changed.get(path);
      if (text !== undefined) return ts.createSourceFile(path, text, version);
      const key = `${part} ${path}`;
      if (!read.has(key)) read.set(key, plain(path, version, ...rest));
      return read.get(key);
    };
    const support = ['arbitraries.ts', 'policy.ts'].map((name) => join(ROOT, 'core/src/testing', name));
    const own = fileNames.filter((path) => !/\.test\.tsx?$/.test(path));
    if (!fileNames.some((path) => asked(relative(ROOT, path)))) continue;
    const program = ts.createProgram([...own, ...(part === 'core' ? support : [])], options, host);
    const looked = program.getSourceFiles().filter((file) => file.fileName.startsWith(`${folder}/`));
    for (const file of looked.filter(({ fileName }) => asked(relative(ROOT, fileName))))
      if (program.getSemanticDiagnostics(file).length) found.add(relative(ROOT, file.fileName));
  }
  return [...found].sort();
}

describe('the guide to adding a field', () => {
  const [first, ...rest] = STEPS;
  const copy = join(ROOT, 'test-results/adding-a-field');

  beforeAll(() => {
    rmSync(copy, { recursive: true, force: true });
    mkdirSync(copy, { recursive: true });
    cpSync(join(ROOT, 'core/src'), copy, { recursive: true, filter: (path) => !/\.test\.ts$/.test(path) });
    for (const step of STEPS)
      if (step.file.startsWith('core/src/')) writeFileSync(join(copy, step.file.slice(9)), after(step));
  });
  afterAll(() => rmSync(copy, { recursive: true, force: true }));

  it('names all places that a new field needs, eight at most, and no other', () => {
    expect(first!.file).toBe('core/src/entries/entry.ts');
    expect(rest.length).toBeLessThanOrEqual(8);
    const files = rest.map((step) => step.file).sort();
    // Two of them are asked for once it is decided that the field goes out.
    const goesOut = ['core/src/forms/icsEvent.ts', 'core/src/forms/page/entryLine.ts'];
    // In the other parts, only these places are checked; all files are, at night.
    const inCore = (file: string) => file.startsWith('core/');
    const places = (file: string) => inCore(file) || files.includes(file);
    expect(refused([first!], places)).toEqual(files.filter((file) => !goesOut.includes(file)));
    const decided = STEPS.filter((step) => !goesOut.includes(step.file));
    expect(refused(decided, inCore)).toEqual(goesOut);
    expect(refused(STEPS, PAIRS > 2000 ? undefined : places)).toEqual([]);
  });

  it('leads to a field that works', async () => {
    const load = <T>(name: string) => import(join(copy, name)) as Promise<T>;
    const { CONTENT_FIELDS, finder, printOfEntry, storedContent } =
      await load<typeof Entries>('entries/index.ts');
    const glass = await load<typeof Glass>('glass/index.ts');
    const reach = await load<typeof Reach>('reach/index.ts');
    const forms = await load<typeof Forms>('forms/index.ts');
    const samples = await load<typeof Samples>('testing/samples.ts');
    const { entry, rulesOf, zoned, HOST, STREET } = samples;
    const said = { access: 'Ramp on the quay side' };
    const own = entry({ start: zoned('2026-06-12T10:00'), ...said });

    // Rows that were written before read as saying nothing, and look as they did.
    const { access: _none, ...before } = entry({ start: own.start }) as typeof own & { access: string };
    expect(storedContent(before as typeof own)).toMatchObject({ access: '' });
    expect(printOfEntry(storedContent(before as typeof own))).toBe(printOfEntry(before as typeof own));
    expect(printOfEntry(own)).not.toBe(printOfEntry(before as typeof own));
    expect(CONTENT_FIELDS).toContain('access');
    expect(finder({ text: 'ramp', in: 'text' })(own)).toBe(true);

    // Files of the organisers' own give it back.
    const bytes = (text: string) => new TextEncoder().encode(text);
    const file = forms.writeEntries([own], { name: 'Quay', zone: HOST, now: 0 });
    expect(forms.readCalendar(bytes(file), HOST, { now: 0 }).entries[0]).toMatchObject(said);
    const table = forms.csvTable(bytes(forms.writeCsv([own])));
    const mapping = forms.guessMapping(table.headings);
    expect(forms.readCsv(table, { mapping, dateOrder: 'ymd', zone: HOST }).entries[0]).toMatchObject(said);

    // Readers get it through clear glass, in feed and page, and not through tinted.
    const range = { from: Date.UTC(2026, 5, 1), to: Date.UTC(2026, 6, 1) };
    const addresses = { see: 'https://w.example/see/k', feed: 'https://w.example/feed/k.ics' };
    const written = (through: 'clear' | 'tinted') => {
      const view = glass.outwardView([own], rulesOf(through), range, STREET);
      const revision = reach.nextRevision(null, view, range.from);
      const feed = forms.writeForm('feed', view, revision, { addresses, now: range.from });
      const page = forms.writePage(view, revision, {
        form: 'page',
        query: { show: 'list' },
        now: range.from,
        addresses: { ...addresses, self: '#', copy: '#' },
        assets: '/outside/',
      });
      return [feed, page].map((text) => text.includes('Ramp on the quay side'));
    };
    expect(written('clear')).toEqual([true, true]);
    expect(written('tinted')).toEqual([false, false]);
  });
});
