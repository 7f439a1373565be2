import { followersSite } from './followers/followersSite';
import { USUAL_PACE } from './followers/crowd';
import { gathered } from './followers/gathered';
import { hostSite } from './hostSite';
import { Mailbox, postboxServer, postboxSite } from './postbox';

/** Starts the stand-ins for the world outside; each listens on loopback at the port that its setting names. */
const need = (name: string) => {
  const value = process.env[name];
  if (!value) throw new Error(`The environment variable ${name} is missing. Set it and start again.`);
  return value;
};
const placeOf = (name: string) => {
  const { port, hostname } = new URL(need(name));
  return [Number(port), hostname] as const;
};
const mailbox = new Mailbox(process.env['POSTBOX_FOLDER'] ?? '');
await mailbox.open();
const gathering = gathered(need('PUBLIC_URL'), Number(process.env['FOLLOWERS_PACE'] ?? USUAL_PACE));
const servers = [
  hostSite(need('PUBLIC_URL')).listen(...placeOf('HOST_SITE_URL')),
  postboxSite(mailbox).listen(...placeOf('POSTBOX_URL')),
  followersSite(gathering.crowd).listen(...placeOf('FOLLOWERS_URL')),
];
const smtp = postboxServer(mailbox);
smtp.on('error', () => undefined);
await Promise.all([
  ...servers.map((server) => new Promise((resolve) => server.once('listening', resolve))),
  new Promise<void>((resolve) => smtp.listen(...placeOf('SMTP_URL'), resolve)),
]);
process.send?.('ready');
const stop = () => {
  void gathering.close();
  smtp.close();
  for (const server of servers) server.close();
};
process.once('SIGTERM', stop);
// The script that started them is gone, and would have stopped them.
process.once('disconnect', stop);
// Waiting for that keeps nothing running.
process.channel?.unref();
