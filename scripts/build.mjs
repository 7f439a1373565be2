import { build } from './lib/build.mjs';
import { ensureNpmPackages } from './lib/packages.mjs';
import { main } from './lib/say.mjs';

await main(async () => {
  await ensureNpmPackages();
  await build();
});
