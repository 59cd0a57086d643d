/** Pictures made smaller: turned as they were taken, without what a camera writes into them, in two sizes. */
import sharp from 'sharp';

/** A picture as it is kept. */
export interface Picture {
  kind: 'png' | 'jpeg' | 'webp';
  bytes: Buffer;
  width: number;
  height: number;
  small: Buffer;
}

/** The longer side of a picture that is kept, and of its small copy, in dots. */
const longest = 2_400;
const longestSmall = 320;
/** Dots of a picture at most, before it is read. */
const mostDots = 100_000_000;

// One after another, whoever brings them: a large one takes some hundred megabytes while it is read.
sharp.concurrency(1);
sharp.cache(false);
let last: Promise<unknown> = Promise.resolve();

/** Why a picture is not taken. */
export type NoPicture = 'files.broken' | 'files.tooManyDots';

/** Makes a picture smaller; bytes that only look like one are refused. */
export function smaller(bytes: Uint8Array): Promise<Picture | NoPicture> {
  const mine = last.then(() => made(bytes));
  last = mine;
  return mine;
}

async function made(bytes: Uint8Array): Promise<Picture | NoPicture> {
  const open = () => sharp(bytes, { limitInputPixels: mostDots, failOn: 'error', animated: false });
  try {
    const { width, height, format } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (width * height > mostDots) return 'files.tooManyDots';
    const kind = format === 'jpeg' || format === 'png' ? format : 'webp';
    const fitting = (side: number) =>
      open().rotate().resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true });
    const whole = await fitting(longest)[kind]().toBuffer({ resolveWithObject: true });
    const small = await fitting(longestSmall).webp({ quality: 80 }).toBuffer();
    return { kind, bytes: whole.data, width: whole.info.width, height: whole.info.height, small };
  } catch {
    return 'files.broken';
  }
}
