/** Fonts as they ship (WOFF 1.0, W3C) into what pages are set with (SFNT), so that no page unpacks them again. */
import { inflateSync } from 'node:zlib';

const woff = 0x774f4646;
const headSize = { woff: 44, sfnt: 12 } as const;
const entrySize = { woff: 20, sfnt: 16 } as const;

/**
 * The tables of a font unpacked, in their order, each at a multiple of four bytes. What is no WOFF is given as it is. The
 * one who reads a font for every document unpacks it for every document else, which takes longer than setting a page.
 */
export function unpackedFont(packed: Buffer): Buffer {
  if (packed.length < headSize.woff || packed.readUInt32BE(0) !== woff) return packed;
  const count = packed.readUInt16BE(12);
  const head = Buffer.alloc(headSize.sfnt + count * entrySize.sfnt);
  packed.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  const steps = Math.floor(Math.log2(count));
  head.writeUInt16BE(2 ** steps * 16, 6);
  head.writeUInt16BE(steps, 8);
  head.writeUInt16BE((count - 2 ** steps) * 16, 10);
  const parts: Buffer[] = [head];
  let at = head.length;
  for (let table = 0; table < count; table += 1) {
    const entry = headSize.woff + table * entrySize.woff;
    const [offset, length, whole] = [4, 8, 12].map((part) => packed.readUInt32BE(entry + part)) as [
      number,
      number,
      number,
    ];
    const body = packed.subarray(offset, offset + length);
    const data = length < whole ? inflateSync(body) : body;
    const place = headSize.sfnt + table * entrySize.sfnt;
    packed.copy(head, place, entry, entry + 4);
    // Its check sum is that of the unpacked table.
    packed.copy(head, place + 4, entry + 16, entry + 20);
    head.writeUInt32BE(at, place + 8);
    head.writeUInt32BE(whole, place + 12);
    const filled = Buffer.alloc(Math.ceil(whole / 4) * 4);
    data.copy(filled);
    parts.push(filled);
    at += filled.length;
  }
  return Buffer.concat(parts);
}
