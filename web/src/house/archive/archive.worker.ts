// Before anything that has texts.
import '../../texts/de';
import { zip, type AsyncZippable } from 'fflate';
import { call } from '../../api/client';
import { archiveFiles } from './archiveFiles';
import { offer } from '../../workers/offer';

/** Receives what comes next, and the share (0 to 1) that is done. */
type ArchiveProgress = (what: string, share: number) => void;

const worker = {
  /** Fetches and packs everything; returns the bytes of a zip file. Throws why something could not be fetched. */
  async make(now: number, tell: ArchiveProgress): Promise<Uint8Array<ArrayBuffer>> {
    const files: AsyncZippable = {};
    const encoder = new TextEncoder();
    for await (const { name, text, next, share } of archiveFiles((asked, sent) => call(asked, sent), now)) {
      files[name] = encoder.encode(text);
      tell(next, share);
    }
    return new Promise((resolve, reject) => {
      zip(files, { mtime: now }, (error, bytes) => (error ? reject(error) : resolve(bytes)));
    });
  },
};
export type ArchiveWorker = typeof worker;

offer(worker);
