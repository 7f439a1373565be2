import { ENTRY_LIMITS } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import PQueue from 'p-queue';
import sharp from 'sharp';

/** An image as it is stored: WebP, with nothing of the uploaded file but its picture. */
export interface EncodedImage {
  readonly bytes: Buffer;
  /** In pixels. */
  readonly width: number;
  readonly height: number;
}

/** Pixels of an uploaded image, of all its frames: a small file can claim to be as large as a house. */
const MAX_PIXELS = 60_000_000;
const ENCODING_DEADLINE_SECONDS = 20;
const WEBP_QUALITY = 80;

// One at a time, in one thread: reading images must not keep others waiting for the threads of the process.
const queue = new PQueue({ concurrency: 1 });
sharp.concurrency(1);
sharp.cache(false);
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['VipsForeignLoadJpeg', 'VipsForeignLoadPng', 'VipsForeignLoadWebp', 'VipsForeignLoadNsgif'],
});

/**
 * Returns an uploaded image as it is stored. It is turned upright and at most {@link ENTRY_LIMITS.imageSide} pixels wide and
 * high; where and with what it was taken is left out. Throws `image-unreadable` unless it is a JPEG, PNG, WebP or GIF file.
 */
export function encodeImage(file: Buffer): Promise<EncodedImage> {
  return queue.add(() => encode(file)) as Promise<EncodedImage>;
}

async function encode(file: Buffer): Promise<EncodedImage> {
  const side = ENTRY_LIMITS.imageSide;
  try {
    const { data, info } = await sharp(file, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
      .timeout({ seconds: ENCODING_DEADLINE_SECONDS })
      .autoOrient()
      .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: WEBP_QUALITY })
      .toBuffer({ resolveWithObject: true });
    return { bytes: data, width: info.width, height: info.height };
  } catch {
    throw new Problem('image-unreadable');
  }
}
