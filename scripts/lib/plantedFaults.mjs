import { cpSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SERVER_ENTRIES, SERVER_MAIN } from './build.mjs';
import { bundleServer } from './bundle.mjs';
import { ROOT } from './run.mjs';

/**
 * Faults that the model of histories has to find, one in each mechanism that it tests: a text of a source file, and what a
 * faulty build has instead.
 */
export const PLANTED_FAULTS = [
  {
    name: 'a change is answered before it acts outside',
    file: 'server/src/outside/publisher.ts',
    from: 'while (this.last < change.id) await this.hear();',
    to: '',
  },
  {
    name: 'a change is answered before other processes have confirmed it',
    file: 'server/src/outside/presence.ts',
    from: 'if (!left.length) return null;',
    to: 'return null;',
  },
  {
    name: 'a process goes on serving without a word from the database',
    file: 'server/src/outside/publisher.ts',
    from: 'this.elapsed() <= this.heard + this.unheard',
    to: 'this.heard > 0',
  },
  {
    name: 'what only other readers see makes a revision',
    file: 'core/src/reach/revision.ts',
    from: 'if (previous && same && previous.print === print) return previous;',
    to: '',
  },
  {
    name: 'a withdrawn key goes on',
    file: 'server/src/outside/keyPlaces.ts',
    from: 'endOf({ expiresAt: expires, withdrawnAt: withdrawn })',
    to: 'endOf({ expiresAt: expires, withdrawnAt: null })',
  },
  {
    name: 'an unlisted window stays on the notice board',
    file: 'server/src/outside/publisher.ts',
    from: 'else this.listed.delete(window.id);',
    to: '',
  },
  {
    name: 'a new ceiling is not logged as a change of windows',
    file: 'server/src/glass/ceilingRoutes.ts',
    from: 'touched: [...calendar, ...windows]',
    to: 'touched: [...calendar]',
  },
  {
    name: 'an entry that was deleted stays in memory',
    file: 'server/src/outside/material.ts',
    from: 'if (was) this.calendars.peek(was.calendarId)?.delete(was.id);',
    to: '',
  },
  {
    name: 'a scheduled draft is published whatever its author may do by then',
    file: 'server/src/glass/publishWindow.ts',
    from: "if (scheduled && !(await mayStillAct('scheduled-draft', userId, subject, transaction)))",
    to: 'if (scheduled && !mayStillAct)',
  },
  {
    name: 'a key that is opened again leads to no view',
    file: 'server/src/outside/compiler.ts',
    from: 'else this.addView(id, { audience, cap }, openUntil);',
    to: '',
  },
];

/** Returns an esbuild plugin that builds a source file with a fault in it. Throws if the file no longer has the text. */
function planting({ name, file, from, to }) {
  const path = join(ROOT, file);
  const source = readFileSync(path, 'utf8');
  if (source.split(from).length !== 2)
    throw new Error(`“${name}” cannot be planted: ${file} does not have its text exactly once.`);
  const contents = source.replace(from, () => to);
  return {
    name: 'planted-fault',
    setup({ onLoad }) {
      onLoad({ filter: /\.ts$/ }, (args) => (args.path === path ? { contents, loader: 'ts' } : undefined));
    },
  };
}

/** Builds a server with a fault into a folder; returns the path of its main file. */
export async function buildFaulty(fault, folder) {
  await bundleServer(SERVER_ENTRIES, folder, {
    define: { BUILD: JSON.stringify(fault.name) },
    plugins: [planting(fault)],
  });
  cpSync(join(SERVER_MAIN, '..', 'answers.json'), join(folder, 'answers.json'));
  return join(folder, 'main.js');
}
