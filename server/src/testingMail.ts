import { SMTPServer } from 'smtp-server';
import type { AddressInfo } from 'node:net';

/** What it does once it was handed a mail. */
export type Behaviour = (session: {
  readonly done: (error?: Error | null) => void;
  readonly raw: string;
}) => void;

/** A mail server on loopback that notes what it was handed over and answers as it is told. */
export async function mailServer(answer: Behaviour = ({ done }) => done(), refuse?: () => Error | null) {
  const taken: string[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo: (_address, _session, done) => done(refuse?.() ?? null),
    onData: (stream, _session, done) => {
      let raw = '';
      stream.on('data', (part: Buffer) => (raw += part.toString()));
      stream.on('end', () => {
        taken.push(raw);
        answer({ raw, done });
      });
    },
  });
  server.on('error', () => undefined);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const close = () => new Promise<void>((resolve) => server.close(() => resolve()));
  const port = (server.server.address() as AddressInfo).port;
  return { taken, port, close };
}
