/**
 * The fonts that paper is set in. They come with the application; nothing is fetched. A run of text is set in the
 * first of them that has its letters, and what none has is shown as a box and told of before anything is sent.
 */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { openSync, type Font } from 'fontkit';

/** A face in its weights and slants, as files. */
export interface Face {
  normal: string;
  bold: string;
  italics: string;
  bolditalics: string;
}

const find = createRequire(join(process.cwd(), 'package.json'));
const file = (pkg: string, name: string): string =>
  join(dirname(find.resolve(`${pkg}/package.json`)), 'files', `${name}.woff`);

function face(pkg: string, name: string, subset: string, slanted: boolean): Face {
  const of = (weight: number, slant: 'normal' | 'italic') =>
    file(pkg, `${name}-${subset}-${String(weight)}-${slant}`);
  return {
    normal: of(400, 'normal'),
    bold: of(600, 'normal'),
    italics: of(400, slanted ? 'italic' : 'normal'),
    bolditalics: of(600, slanted ? 'italic' : 'normal'),
  };
}

const archivo = (subset: string): Face => face('@fontsource/archivo', 'archivo', subset, true);
const mono = (subset: string): Face =>
  face('@fontsource/spline-sans-mono', 'spline-sans-mono', subset, false);
const noto = (subset: string): Face => face('@fontsource/noto-sans', 'noto-sans', subset, true);

/** Faces by the names under which pages use them; letters are looked for in this order. */
export const faces: Readonly<Record<string, Face>> = {
  Archivo: archivo('latin'),
  ArchivoMore: archivo('latin-ext'),
  Greek: noto('greek'),
  GreekMore: noto('greek-ext'),
  Cyrillic: noto('cyrillic'),
  CyrillicMore: noto('cyrillic-ext'),
  Vietnamese: noto('vietnamese'),
  Mono: mono('latin'),
  MonoMore: mono('latin-ext'),
};

const orders = {
  text: ['Archivo', 'ArchivoMore', 'Greek', 'GreekMore', 'Cyrillic', 'CyrillicMore', 'Vietnamese'],
  code: ['Mono', 'MonoMore', 'ArchivoMore', 'Greek', 'Cyrillic', 'CyrillicMore', 'Vietnamese'],
} as const;

/** Stands for a letter that no font has. */
export const missingLetter = '?';

const opened = new Map<string, Font>();
const fontOf = (name: string): Font => {
  const known = opened.get(name);
  if (known) return known;
  const font = openSync((faces[name] as Face).normal) as Font;
  opened.set(name, font);
  return font;
};

const found = new Map<string, string | null>();

/** The face that has a letter; null where none has. */
function faceOf(letter: string, kind: keyof typeof orders): string | null {
  const key = `${kind}${letter}`;
  const known = found.get(key);
  if (known !== undefined) return known;
  const code = letter.codePointAt(0) ?? 0;
  const name = orders[kind].find((each) => fontOf(each).hasGlyphForCodePoint(code)) ?? null;
  if (found.size > 20_000) found.clear();
  found.set(key, name);
  return name;
}

/** Spaces of all kinds, and line ends, that every face can do without. */
const gap = /^[\s\u00a0\u2007\u2009\u202f]$/u;
/** Marks that say nothing to a reader, such as a joiner between letters. */
const silent = /^[\u200b-\u200f\u2060\ufeff\ufe00-\ufe0f]$/u;

/** A run of text in one face. */
export interface Run {
  text: string;
  /** Absent where it is the first. */
  font?: string;
}

const plain = /^[\n\x20-\x7e\u00a0-\u00ff]*$/;

/** A text in runs that can be set; letters that no face has are shown by `missingLetter`. */
export function runsIn(text: string, kind: keyof typeof orders = 'text'): Run[] {
  if (plain.test(text)) return [{ text }];
  const runs: Run[] = [];
  const [usual] = orders[kind];
  for (const letter of text.normalize('NFC')) {
    if (silent.test(letter)) continue;
    const last = runs.at(-1);
    const name = gap.test(letter) ? (last?.font ?? usual) : (faceOf(letter, kind) ?? usual);
    const shown = gap.test(letter)
      ? letter === '\n'
        ? letter
        : ' '
      : faceOf(letter, kind) === null
        ? missingLetter
        : letter;
    if (last && (last.font ?? usual) === name) last.text += shown;
    else runs.push({ text: shown, ...(name === usual ? {} : { font: name }) });
  }
  return runs;
}

/** Letters of a text that no face has, each once, in their order; at most so many. */
export function unsettable(text: string, most = 20): string[] {
  if (plain.test(text)) return [];
  const missing = new Set<string>();
  for (const letter of text.normalize('NFC')) {
    if (missing.size >= most) break;
    if (!gap.test(letter) && !silent.test(letter) && faceOf(letter, 'text') === null) missing.add(letter);
  }
  return [...missing];
}
