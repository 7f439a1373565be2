import { KEEPING } from '@zonal/core/followers';
import { DAY, HOUR } from '@zonal/core/zones';
import express, { type Express } from 'express';
import { escape } from '../html';
import { PACES, type Crowd } from './crowd';
import type { Follower } from './follower';

const STYLE = `
body { margin: 0; font: 16px/1.5 Georgia, serif; background: #eceae4; color: #24211b; }
header { background: #4a3d2a; color: #fff; padding: 14px 24px; }
main { max-width: 1180px; margin: 0 auto; padding: 16px 24px 48px; }
form { display: inline; }
fieldset { border: 1px solid #b9b09c; background: #fff; margin: 0 0 14px; display: flex; flex-wrap: wrap; gap: 8px; align-items: center; }
button { font: inherit; padding: 3px 12px; }
button[aria-pressed=true] { background: #4a3d2a; color: #fff; }
table { width: 100%; border-collapse: collapse; background: #fff; border: 1px solid #b9b09c; }
th, td { text-align: left; vertical-align: top; padding: 6px 10px; border-bottom: 1px solid #ddd6c6; }
th { font-weight: normal; color: #6b6353; }
small { display: block; color: #6b6353; }
td:last-child { white-space: nowrap; }
@media (max-width: 800px) { thead { display: none; } tr, td { display: block; } td { border: 0; padding: 2px 10px; } tr { border-bottom: 1px solid #b9b09c; padding: 6px 0; } }
`;

const PACE_WORDS: Readonly<Record<(typeof PACES)[number], string>> = {
  0: 'Stand still',
  1: 'As the clock goes',
  10: 'A minute is ten',
  60: 'A minute is an hour',
  600: 'A minute is ten hours',
};

const WAY_WORDS = {
  feed: 'the whole feed',
  difference: 'what has changed only',
  dav: 'a CalDAV collection',
} as const;

/** Seconds after which the page shows itself anew. */
const AGAIN = 4;

/** Returns the page of the programs outside: what each does, and what can be done with them. */
export function followersSite(crowd: () => Crowd | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(express.urlencoded({ extended: false }));
  // What changes something is asked for from the page itself.
  app.use((req, res, next) => {
    const from = req.get('origin');
    if (req.method === 'POST' && from !== undefined && from !== `http://${req.get('host')}`)
      res.status(403).type('text').send('This is for the page of the followers itself.\n');
    else next();
  });
  app.get('/', (_req, res) => {
    const all = crowd();
    res.type('html').send(all ? page(all) : waiting());
  });
  app.get('/followers.json', (_req, res) => {
    const all = crowd();
    res.json({
      now: all?.clock.read() ?? null,
      speed: all?.clock.speed ?? null,
      followers: (all?.followers ?? []).map((f) => ({ ...told(f), shows: f.shows })),
    });
  });
  app.post('/pace', (req, res) => {
    const pace = PACES.find((p) => String(p) === (req.body as { pace?: string }).pace);
    if (pace !== undefined) crowd()?.clock.setSpeed(pace);
    res.redirect(303, '/');
  });
  app.post('/jump', async (req, res) => {
    const hours = Number((req.body as { hours?: string }).hours);
    if (hours > 0 && hours <= 24 * 14) await crowd()?.jump(hours * HOUR);
    res.redirect(303, '/');
  });
  app.post('/followers/:n/:deed', async (req, res) => {
    const all = crowd();
    const follower = all?.followers[Number(req.params.n)];
    const deed = req.params.deed;
    if (all && follower && deed === 'stop') follower.stopped = true;
    if (all && follower && deed === 'start') {
      follower.stopped = false;
      follower.next = all.clock.read();
    }
    if (follower && deed === 'flaky') follower.flaky = !follower.flaky;
    if (all && follower && deed === 'look') await follower.look(all.clock.read());
    res.redirect(303, '/');
  });
  return app;
}

function told(f: Follower) {
  const { agent, whose, slug, madeOutTo, program, way, keeping } = f.member;
  const { stopped, flaky, next, lastLook, told: said } = f;
  return {
    agent,
    whose,
    slug,
    madeOutTo,
    rhythm: program.name,
    way,
    keeping,
    stopped,
    flaky,
    next,
    lastLook,
    said,
  };
}

const shell = (body: string, again = '') => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">${again}
<title>Followers</title>
<style>${STYLE}</style>
</head>
<body>
<header><strong>Followers</strong> stand in for other people’s calendar programs: they look at the demo’s windows over HTTP.</header>
<main>
${body}
</main>
</body>
</html>
`;

const waiting = () =>
  shell('<p>They wait for the demo’s server.</p>', `\n<meta http-equiv="refresh" content="${AGAIN}">`);

const button = (action: string, label: string, name = '', value = '', pressed?: boolean) =>
  `<form method="post" action="${action}">${name ? `<input type="hidden" name="${name}" value="${value}">` : ''}<button${pressed === undefined ? '' : ` aria-pressed="${String(pressed)}"`}>${escape(label)}</button></form>`;

function page(crowd: Crowd): string {
  const now = crowd.clock.read();
  const paces = PACES.map((p) => button('/pace', PACE_WORDS[p], 'pace', String(p), crowd.clock.speed === p));
  const jumps = [1, 3, 12, 24, 72].map((h) =>
    button('/jump', h < 24 ? `${h} h` : `${h / 24} d`, 'hours', String(h)),
  );
  const rows = crowd.followers.map((f, n) => row(f, n, now));
  return shell(
    `<fieldset><legend>Their clock: ${escape(new Date(now).toISOString().slice(0, 16).replace('T', ' '))} UTC</legend>${paces.join('')}</fieldset>
<fieldset><legend>Jump ahead: all look now who would have looked by then</legend>${jumps.join('')}</fieldset>
<p>Zonal Window goes by the real clock. Where a minute is an hour here, a program that looks every hour looks every minute, and it takes a dozen looks until that is known as its rhythm.</p>
<table><thead><tr><th>Program</th><th>Follows</th><th>Looks</th><th>Last</th><th>Shows</th><th>Do</th></tr></thead>
<tbody>${rows.join('\n')}</tbody></table>`,
    `\n<meta http-equiv="refresh" content="${AGAIN}">`,
  );
}

function row(f: Follower, n: number, now: number): string {
  const { agent, whose, slug, madeOutTo, program, way, keeping, tags } = f.member;
  const at = `/followers/${n}`;
  const does = [
    f.stopped ? button(`${at}/start`, 'Start') : button(`${at}/stop`, 'Stop'),
    button(`${at}/look`, 'Look now'),
    button(`${at}/flaky`, f.flaky ? 'Steady again' : 'Make flaky'),
  ];
  const when = f.next === null ? 'looks no more' : `next in ${lengthWords(f.next - now)}`;
  const habit = [WAY_WORDS[way], tags ? '' : 'never says what it holds', KEEPING[keeping].say].filter(
    Boolean,
  );
  return `<tr><td><strong>${escape(whose)}</strong><small>${escape(agent)}</small></td>
<td>${escape(slug)}<small>${escape(madeOutTo ?? 'by the notice board')}</small></td>
<td>${escape(program.name)}${f.flaky ? ', made flaky' : ''}<small>${escape(habit.join('; '))}</small></td>
<td>${escape(f.stopped ? 'stopped' : f.told)}<small>${escape(f.stopped ? 'until it is started' : when)}</small></td>
<td>${f.shows.length} times</td>
<td>${does.join(' ')}</td></tr>`;
}

function lengthWords(length: number): string {
  if (length < 60_000) return 'a moment';
  if (length < 2 * HOUR) return `${Math.round(length / 60_000)} min`;
  return length < 2 * DAY ? `${Math.round(length / HOUR)} h` : `${Math.round(length / DAY)} d`;
}
