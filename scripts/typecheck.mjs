import { run } from './lib/run.mjs';
import { main } from './lib/say.mjs';
import { WORKSPACES } from './lib/workspaces.mjs';

await main(async () => {
  for (const { config } of WORKSPACES) await run('npx', ['tsc', '--noEmit', '-p', config]);
});
