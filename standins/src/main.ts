import { hostSite } from './hostSite';

/** Starts the stand-ins for the world outside; each listens on loopback at the port that its setting names. */
const need = (name: string) => {
  const value = process.env[name];
  if (!value) throw new Error(`The environment variable ${name} is missing. Set it and start again.`);
  return value;
};
const { port, hostname } = new URL(need('HOST_SITE_URL'));
const server = hostSite(need('PUBLIC_URL')).listen(Number(port), hostname, () => process.send?.('ready'));
process.once('SIGTERM', () => server.close());
