import * as Comlink from 'comlink';
import { connect } from '../db/connect';
import { sealWith } from '../db/sealed';
import { offer } from '../threads/thread';
import { Compiler } from './compiler';
import type { CompilerData } from './compilingThread';
import type { Order, Outside } from './outside';

/** The thread that works views out: it holds the material, and hands over finished bytes. */
offer<CompilerData, Outside, Compiler>(async ({ databaseUrl, keysSecret, ...options }, outside) => {
  sealWith(keysSecret);
  const sequelize = connect(databaseUrl);
  // Each call of it is over once it acts, also from thread to thread.
  const compiler = new Compiler(outside as unknown as Outside, { sequelize, ...options });
  const write = compiler.write.bind(compiler);
  const close = compiler.close.bind(compiler);
  return Object.assign(compiler, {
    write: async (order: Order) => {
      const written = await write(order);
      if (!written) return null;
      const { head, body } = written;
      const bytes = [head.plain, head.gzip, head.tail, ...(body ? [body.plain, body.deflated] : [])];
      return Comlink.transfer(
        written,
        bytes.map((b) => b.buffer as ArrayBuffer),
      );
    },
    close: async () => {
      await close();
      await sequelize.close();
    },
  });
});
