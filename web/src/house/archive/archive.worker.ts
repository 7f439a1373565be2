// Before anything that has texts.
import '../../texts/de';
import { zip, type AsyncZippable } from 'fflate';
import { call, fetchBytes } from '../../api/client';
import { archiveFiles, type Ask } from './archiveFiles';
import { offer } from '../../workers/offer';

/** Receives what comes next, and the share (0 to 1) that is done. */
type ArchiveProgress = (what: string, share: number) => void;

const worker = {
  /** Fetches and packs everything; returns the bytes of a zip file. Throws why something could not be fetched. */
  async make(now: number, tell: ArchiveProgress): Promise<Uint8Array<ArrayBuffer>> {
    const files: AsyncZippable = {};
    const encoder = new TextEncoder();
    const ask: Ask = (asked, sent) => call(asked, sent);
    for await (const { name, content, next, share } of archiveFiles(ask, fetchBytes, now)) {
      files[name] = typeof content === 'string' ? encoder.encode(content) : content;
      tell(next, share);
    }
    return new Promise((resolve, reject) => {
      zip(files, { mtime: now }, (error, bytes) => (error ? reject(error) : resolve(bytes)));
    });
  },
};
export type ArchiveWorker = typeof worker;

offer(worker);
