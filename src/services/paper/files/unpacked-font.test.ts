import { readFileSync } from 'node:fs';
import { create, openSync, type Font } from 'fontkit';
import { describe, expect, it } from 'vitest';
import { faces } from './fonts';
import { unpackedFont } from './unpacked-font';

const files = [...new Set(Object.values(faces).flatMap((face) => Object.values(face) as string[]))];

describe('a font that is unpacked', () => {
  it.each(files)('sets the same letters in the same widths: %s', (file) => {
    const packed = openSync(file) as Font;
    const unpacked = create(unpackedFont(readFileSync(file))) as Font;
    expect(unpacked.numGlyphs).toBe(packed.numGlyphs);
    expect(unpacked.postscriptName).toBe(packed.postscriptName);
    expect(unpacked.unitsPerEm).toBe(packed.unitsPerEm);
    const text = packed.characterSet.slice(0, 60).map((code) => String.fromCodePoint(code));
    const widths = (font: Font) =>
      font.layout(text.join('')).glyphs.map(({ id, advanceWidth }) => [id, advanceWidth]);
    expect(widths(unpacked)).toEqual(widths(packed));
  });

  it('is left as it is where it is none', () => {
    for (const bytes of [Buffer.alloc(0), Buffer.from('OTTO and so on, as a font is that nobody packed ...')])
      expect(unpackedFont(bytes)).toBe(bytes);
  });
});
