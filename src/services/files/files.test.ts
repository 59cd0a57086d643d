/** Files told by their content, made smaller and safe, kept once, and seen by who may. */
import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FileView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { openDemo, personOf } from '../kernel/testing';
import { bring, dropLoose, endUse, filesOf, openFile, takeBack, use } from './files';
import { kindOf } from './kind';
import { smaller } from './picture';
import { safeDrawing } from './svg';

let [mara, joss, rhona] = [] as unknown as [Actor, Actor, Actor];
beforeAll(async () => {
  await openDemo('files');
  [mara, joss, rhona] = await Promise.all([
    personOf('mara@harrowmoor.example'),
    personOf('joss@harrowmoor.example'),
    personOf('rhona@dunmere.example'),
  ]);
});
afterAll(() => connected().close());

const picture = (width: number, height: number, format: 'png' | 'jpeg' | 'webp' = 'png'): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: '#1d5144' } })
    [format]()
    .toBuffer();
const drawing = (inside: string, more = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"${more}>${inside}</svg>`;
const brought = async (actor: Actor, bytes: Uint8Array, name = 'x'): Promise<FileView> => {
  const result = await bring(actor, { name, bytes });
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const refusal = async (bytes: Uint8Array, name = 'x'): Promise<string | undefined> => {
  const result = await bring(mara, { name, bytes });
  return result.ok ? undefined : result.failures[0]?.code;
};
const text = (given: string): Uint8Array => new TextEncoder().encode(given);

describe('what a file is', () => {
  it.each([
    ['mark.pdf', () => picture(4, 4), 'png'],
    ['mark', () => picture(4, 4, 'jpeg'), 'jpeg'],
    ['a.png', () => picture(4, 4, 'webp'), 'webp'],
    ['a.jpg', () => Promise.resolve(text(drawing('<path d="M0 0"/>'))), 'svg'],
    ['a.exe', () => Promise.resolve(text('%PDF-1.7\n%…\n1 0 obj')), 'pdf'],
    ['list.csv', () => Promise.resolve(text('a;b\n1;2\n')), 'csv'],
    ['list.png', () => Promise.resolve(text('a;b\n1;2\n')), 'text'],
  ])('%s is told by its content: %#', async (name, made, kind) => {
    expect(await kindOf(await made(), name)).toBe(kind);
  });

  it.each([
    ['a page', '<!doctype html><script>alert(1)</script>'],
    ['a page under the name of a picture', '<html><body onload="x()"></body></html>'],
    ['a script in XML', '<?xml version="1.0"?><x:script xmlns:x="http://www.w3.org/1999/xhtml">1</x:script>'],
    ['control characters', 'MZ\u0001\u0002'],
  ])('%s is none that is taken', async (_, content) => {
    expect(await kindOf(text(content), 'mark.png')).toBeNull();
  });

  it('an archive of another kind is none', async () => {
    expect(await kindOf(zipSync({ 'a.txt': strToU8('a') }), 'a.xlsx')).toBeNull();
    expect(await kindOf(new Uint8Array([0x4d, 0x5a, 0x90, 0]), 'a.png')).toBeNull();
  });
});

describe('a picture', () => {
  it('is made smaller, in two sizes, and loses what a camera writes into it', async () => {
    const taken = await sharp(await picture(3_000, 1_000, 'jpeg'))
      .withExif({ IFD0: { Artist: 'somebody' } })
      .jpeg()
      .toBuffer();
    const made = await smaller(taken);
    expect(made).toMatchObject({ kind: 'jpeg', width: 2_400, height: 800 });
    if (typeof made === 'string') return;
    expect((await sharp(made.bytes).metadata()).exif).toBeUndefined();
    expect(await sharp(made.small).metadata()).toMatchObject({ format: 'webp', width: 320 });
  });

  it('of 30,000 x 30,000 dots is refused before it is read', async () => {
    const head = Buffer.from(await picture(8, 8));
    // The size stands in the head of a PNG, which has a checksum of its own.
    head.writeUInt32BE(30_000, 16);
    head.writeUInt32BE(30_000, 20);
    head.writeUInt32BE(crc(head.subarray(12, 29)), 29);
    expect(await refusal(head)).toBe('files.tooManyDots');
  });

  it('that breaks off, or only begins like one, is refused', async () => {
    const whole = await picture(200, 200, 'jpeg');
    expect(await refusal(whole.subarray(0, 300))).toBe('files.broken');
    expect(await refusal(Buffer.concat([whole.subarray(0, 12), Buffer.from('<script>')]))).toBe(
      'files.broken',
    );
    expect(await refusal(new Uint8Array())).toBe('files.empty');
  });
});

describe('a drawing in SVG', () => {
  it.each([
    ['a script', '<script>alert(1)</script><path d="M0 0"/>'],
    ['a script of another name space', '<x:script xmlns:x="http://www.w3.org/2000/svg">1</x:script>'],
    ['what is done on load', '<rect width="1" height="1" onload="alert(1)" ONCLICK="x"/>'],
    [
      'a page inside',
      '<foreignObject><body xmlns="http://www.w3.org/1999/xhtml"><img src="x"/></body></foreignObject>',
    ],
    ['a link', '<a href="javascript:alert(1)"><rect width="1" height="1"/></a>'],
    [
      'something fetched',
      '<image href="http://elsewhere.example/a.png"/><use href="//elsewhere.example#a"/>',
    ],
    [
      'something fetched by its style',
      '<rect style="fill:url(http://elsewhere.example)" width="1" height="1"/>',
    ],
    [
      'something fetched without an address of its own kind',
      '<rect style="fill:image-set(&quot;//elsewhere.example/a&quot;)" width="1" height="1"/>',
    ],
    ['something fetched as a picture', '<rect mask="image(\'elsewhere.example\')" width="1" height="1"/>'],
    ['hidden by escapes', '<rect style="fill:u\\72l(http://elsewhere.example)" width="1" height="1"/>'],
    ['a picture that is a drawing', '<image href="data:image/svg+xml;base64,PHN2Zz4="/>'],
    ['style sheets', '<style>@import "http://elsewhere.example"</style>'],
    ['what moves', '<set attributeName="href" to="javascript:alert(1)"/><animate onbegin="x()"/>'],
  ])('loses %s', (_, inside) => {
    const safe = safeDrawing(drawing(inside));
    expect(safe?.text).not.toMatch(
      /script|elsewhere|alert|on\w+=|foreign|data:image\/svg|import|animate|<set|\\/i,
    );
  });

  it('keeps what it draws, its size, and references to its own parts', () => {
    const inside =
      '<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/></linearGradient></defs>' +
      '<rect width="4" height="2" fill="url(#g)" style="stroke-width:2"/><text x="1" y="2">5 &lt; 6 &amp; "7"</text><use href="#g"/>';
    const safe = safeDrawing(drawing(inside, ' viewBox="0 0 40 20"'));
    expect(safe).toMatchObject({ width: 40, height: 20 });
    for (const part of ['url(#g)', 'stroke-width:2', '5 &lt; 6 &amp; &quot;7&quot;', 'href="#g"', '<stop'])
      expect(safe?.text).toContain(part);
    expect(safeDrawing(safe?.text ?? '')?.text).toBe(safe?.text);
  });

  it('takes its size from its frame, where it says none', () => {
    expect(safeDrawing('<svg viewBox="0 0 12.4 7"><path d="M0 0"/></svg>')).toMatchObject({
      width: 12,
      height: 7,
    });
  });

  it.each([
    ['with entities of its own', '<!DOCTYPE svg [<!ENTITY a "b">]><svg>&a;</svg>'],
    ['that is nested too deep', `<svg>${'<g>'.repeat(300)}${'</g>'.repeat(300)}</svg>`],
    ['that does not end', '<svg><path d="M0 0"'],
    ['that is none', '<g/>'],
  ])('%s is refused', (_, source) => {
    expect(safeDrawing(source)).toBeNull();
  });
});

describe('the store', () => {
  it('keeps what is in files once, told by its hash', async () => {
    const bytes = text('a;b\n1;2');
    const [one, other] = [
      await brought(mara, bytes, 'list.csv'),
      await brought(joss, bytes, '../..\\other.csv'),
    ];
    expect([one.name, other.name, one.kind, one.size]).toEqual(['list.csv', 'other.csv', 'csv', 7]);
    const hash = createHash('sha256').update(bytes).digest('hex');
    expect(await connected().records.files.count({ where: { hash } })).toBe(2);
    expect(await connected().records.fileContents.count({ where: { hash } })).toBe(1);
  });

  it('shows a file to who brought it alone, until something uses it that others see', async () => {
    const file = await brought(mara, await picture(40, 20), 'mark.png');
    for (const other of [joss, rhona])
      expect(await openFile(other, file.id, 'whole')).toMatchObject({ ok: false, status: 'missing' });
    expect(await use(joss, file.id, 'house', 'mark')).toMatchObject({ ok: false, status: 'missing' });
    expect(await use(mara, file.id, 'house', 'mark')).toMatchObject({ ok: true, value: { width: 40 } });
    for (const who of [mara, joss, rhona]) expect((await openFile(who, file.id, 'small')).ok).toBe(true);
    expect(await takeBack(mara, file.id)).toMatchObject({ ok: false, failures: [{ code: 'files.used' }] });
    expect((await filesOf('house', 'mark')).map(({ id, by }) => [id, by])).toEqual([[file.id, mara.name]]);
    expect(await use(mara, file.id, 'house', 'other')).toMatchObject({ ok: false, status: 'conflict' });
    await endUse('house', 'mark', [file.id]);
    expect(await filesOf('house', 'mark')).toHaveLength(1);
    await endUse('house', 'mark');
    expect(await openFile(joss, file.id, 'whole')).toMatchObject({ ok: false });
    expect(await takeBack(joss, file.id)).toMatchObject({ ok: false, status: 'missing' });
    expect(await takeBack(mara, file.id)).toMatchObject({ ok: true });
    expect(await openFile(mara, file.id, 'whole')).toMatchObject({ ok: false });
  });

  it('opens what it is such that it can run nothing', async () => {
    const file = await brought(mara, text(drawing('<path d="M0 0"/>')), 'plan.png');
    const opened = await openFile(mara, file.id, 'whole');
    expect(opened).toMatchObject({
      ok: true,
      value: {
        name: 'plan.svg',
        type: 'image/svg+xml',
        headers: {
          'content-security-policy': expect.stringMatching(/default-src 'none'.*sandbox/) as string,
          'x-content-type-options': 'nosniff',
          'content-disposition': 'inline; filename="plan.svg"',
        },
      },
    });
    const list = await openFile(mara, (await brought(mara, text('a'), 'a"b\n.txt')).id, 'whole');
    expect(list).toMatchObject({ ok: true, value: { name: 'a_b.txt' } });
    expect(list.ok && list.value.headers?.['content-disposition']).toBeUndefined();
  });

  it('takes away after a day what nobody used, and contents that no file has', async () => {
    const [loose, used] = [await brought(mara, text('loose')), await brought(mara, text('used'))];
    await use(mara, used.id, 'house', 'paper');
    await dropLoose(new Date());
    expect((await openFile(mara, loose.id, 'whole')).ok).toBe(true);
    await dropLoose(new Date(Date.now() + 25 * 60 * 60 * 1000));
    expect((await openFile(mara, loose.id, 'whole')).ok).toBe(false);
    expect((await openFile(mara, used.id, 'whole')).ok).toBe(true);
    const hash = createHash('sha256').update('loose').digest('hex');
    expect(await connected().records.fileContents.count({ where: { hash } })).toBe(0);
  });

  it('takes so much of one person and no more, until it is used or taken back', async () => {
    const { id } = await brought(joss, text('one of many'));
    await connected().sequelize.query(
      `insert into files (id, hash, name, owner) select gen_random_uuid(), hash, 'x', owner from files, generate_series(1, 300) where id = $1`,
      { bind: [id] },
    );
    expect(await bring(joss, { name: 'x', bytes: text('more') })).toMatchObject({
      ok: false,
      status: 'tooMany',
      failures: [{ code: 'files.tooManyLoose' }],
    });
    expect((await bring(mara, { name: 'x', bytes: text('more') })).ok).toBe(true);
    await connected().records.files.destroy({ where: { owner: joss.id, about: null } });
    expect((await bring(joss, { name: 'x', bytes: text('more') })).ok).toBe(true);
  });

  it('keeps one content for twenty that bring the same at once', async () => {
    const bytes = await picture(64, 64);
    const all = await Promise.all(
      Array.from({ length: 20 }, (_, at) => brought(at % 2 ? mara : joss, bytes, `p${String(at)}`)),
    );
    expect(new Set(all.map(({ size }) => size)).size).toBe(1);
    expect(new Set(all.map(({ id }) => id)).size).toBe(20);
  });
});

/** The checksum of a chunk of a PNG. */
function crc(bytes: Uint8Array): number {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit += 1) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return (value ^ 0xffffffff) >>> 0;
}
