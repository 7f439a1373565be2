import { connect } from 'node:net';

/*
 * A client that does next to nothing, in a process of its own: what is measured is the server. It asks the same again and
 * again on some connections, and tells its parent how many answers a second came.
 */
const [port, path, connections, seconds, ...headers] = process.argv.slice(2);
const ask = [`GET ${path} HTTP/1.1`, `Host: 127.0.0.1:${port}`, ...headers!, '', ''].join('\r\n');
let answers = 0;

/** Returns how many bytes an answer has: all of them are alike. */
function sizeOf(first: Buffer): number {
  const end = first.indexOf('\r\n\r\n') + 4;
  if (end < 4) throw new Error('The first answer came in pieces too small.');
  const head = first.subarray(0, end).toString();
  if (!/^HTTP\/1\.1 (200|304) /.test(head)) throw new Error(`Not what was asked for: ${head}`);
  return end + Number(/content-length: (\d+)/i.exec(head)?.[1] ?? 0);
}

for (let i = 0; i < Number(connections); i++) {
  const socket = connect(Number(port), '127.0.0.1', () => socket.write(ask));
  let [size, got] = [0, 0];
  socket.on('data', (data) => {
    size ||= sizeOf(data);
    got += data.length;
    if (got < size) return;
    got = 0;
    answers++;
    socket.write(ask);
  });
}
setTimeout(
  () => {
    process.send!(answers / Number(seconds));
    process.exit(0);
  },
  Number(seconds) * 1000,
);
