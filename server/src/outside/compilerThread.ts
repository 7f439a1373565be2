import * as Comlink from 'comlink';
import { connect } from '../db/connect';
import { sealWith } from '../db/sealed';
import { offer } from '../threads/thread';
import { Compiler } from './compiler';
import type { CompilerData } from './compilingThread';
import type { Order, Outside } from './outside';
import { RenderPool } from './renderPool';
import { buffersOf } from './writing';

/** The thread that compiles views: it holds the entries, and has documents rendered in further threads. */
offer<CompilerData, Outside, Compiler>(
  async ({ databaseUrl, keysSecret, folder, room, ...options }, outside) => {
    sealWith(keysSecret);
    const sequelize = connect(databaseUrl);
    const renderRoom = Math.ceil(room / 3);
    const rendering = new RenderPool({ folder: new URL(folder), room: renderRoom });
    await rendering.start();
    // Each call of it is over once it acts, also from thread to thread.
    const compiler = new Compiler(outside as unknown as Outside, {
      ...options,
      sequelize,
      rendering,
      room: room - renderRoom,
      // The thread ends, and is started again: readers get what is true then.
      onDatabaseReplaced: () => process.exit(1),
    });
    const write = compiler.write.bind(compiler);
    const close = compiler.close.bind(compiler);
    return Object.assign(compiler, {
      write: async (order: Order) => {
        const written = await write(order);
        return written && Comlink.transfer(written, buffersOf(written));
      },
      close: async () => {
        await close();
        await sequelize.close();
      },
    });
  },
);
