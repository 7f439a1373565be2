import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';

/*
 * A client in a process of its own that polls many addresses at random: most know what they hold and are told that nothing is
 * new, some get everything. It tells its parent how many answers came, and how long each took.
 */
const [port, file, connections, seconds, share] = process.argv.slice(2);
const asked = JSON.parse(readFileSync(file!, 'utf8')) as { path: string; tag: string }[];
const agent = new Agent({ keepAlive: true, maxSockets: Number(connections) });
const took: number[] = [];
let [done, seed] = [false, 1];

/** The same in each run. */
function random(): number {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
  return seed / 2 ** 32;
}

function poll(): Promise<void> {
  const { path, tag } = asked[Math.floor(random() * asked.length)]!;
  const held = random() < Number(share) ? { 'if-none-match': tag } : {};
  return new Promise((resolve, reject) => {
    const began = performance.now();
    request(
      { host: '127.0.0.1', port, path, agent, headers: { 'accept-encoding': 'gzip', ...held } },
      (res) => {
        if (res.statusCode !== 200 && res.statusCode !== 304)
          reject(new Error(`${path} answers ${res.statusCode}`));
        res.resume();
        res.on('end', () => {
          took.push(performance.now() - began);
          resolve();
        });
      },
    )
      .on('error', reject)
      .end();
  });
}

setTimeout(() => (done = true), Number(seconds) * 1000);
await Promise.all(
  Array.from({ length: Number(connections) }, async () => {
    while (!done) await poll();
  }),
);
took.sort((a, b) => a - b);
const at = (part: number) => took[Math.min(took.length - 1, Math.floor(took.length * part))]!;
process.send!({ answers: took.length / Number(seconds), p50: at(0.5), p99: at(0.99), all: at(1) });
process.exit(0);
