/** Composing: what is kept, by whom, and what becomes of texts and templates that others change. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PDFDocument } from '@cantoo/pdf-lib';
import { composeInput, paperTemplateInput, paperTextInput, type PaperView } from '../../contract';
import { plainRich, type Composition } from '../../core/paper';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { bring, dropLoose, endUse } from '../files/files';
import type { Result } from '../kernel/failure';
import { openDemo, personOf } from '../kernel/testing';
import { reviseQuote, sendQuote } from '../quotes/history/revisions';
import { listQuotes } from '../quotes/quote-list';
import { openQuote, seeQuote } from '../quotes/quotes';
import { addByNumber } from '../quotes/lines/quote-builds';
import { documentOf, keepPaper, pagesOf, quotation, seePaper } from './composing';
import { dropTemplate, dropText, keepTemplate, keepText, seePaperHouse } from './house-texts';
import { drawingsArchive, specification } from './specification';

let mara: Actor, joss: Actor, rhona: Actor, wen: Actor;
beforeAll(async () => {
  await openDemo('composing', { whole: true });
  [mara, joss, rhona, wen] = (await Promise.all(
    ['mara@harrowmoor', 'joss@harrowmoor', 'rhona@dunmere', 'wen@harrowmoor'].map((name) =>
      personOf(`${name}.example`),
    ),
  )) as [Actor, Actor, Actor, Actor];
});
afterAll(() => connected().close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.failures));
  return result.value;
};
const codes = (result: Result<unknown>): string[] =>
  result.ok ? [] : result.failures.map(({ code }) => code);

/** A quote of its own with a line, for a customer. */
async function quoteFor(customer: string, actor = mara): Promise<string> {
  const { customers } = connected().records;
  const found = await customers.findOne({ where: { number: customer }, raw: true });
  const opened = value(await openQuote(actor, { customerId: found?.id ?? '', title: 'Composed' }));
  value(await addByNumber(actor, opened.id, { version: opened.version, sku: 'YE-KIOSK', quantity: 1 }));
  return opened.id;
}
const see = async (id: string, actor = mara): Promise<PaperView> => value(await seePaper(actor, id));
const keep = (id: string, view: PaperView, change: Partial<Composition>, actor = mara) =>
  keepPaper(actor, id, { version: view.version, composition: { ...view.composition, ...change } });
const said = async (id: string, revision?: number): Promise<string> =>
  JSON.stringify(value(await documentOf(mara, id, revision)));

describe('data sheets of items', () => {
  it('are proposed, kept for the quote as they are, and stay when the item gets another', async () => {
    const id = await quoteFor('C-1001');
    const view = await see(id);
    expect(view.proposed.map(({ sku }) => sku)).toEqual(['YE-KIOSK']);
    const [sheet] = view.proposed;
    const annex = { file: sheet?.file ?? '', name: sheet?.fileName ?? '', kind: 'pdf' } as const;
    const kept = value(await keep(id, view, { annexes: [annex] }));
    const [own] = kept.composition.annexes;
    expect(own?.file).not.toBe(annex.file);
    expect(kept.proposed).toEqual([]);
    // Taken once more, as a page does that does not know the copy yet, it is the same copy.
    const again = value(await keep(id, kept, { annexes: [annex] }));
    expect(again.composition.annexes).toEqual([own]);
    await connected().records.items.update({ dataSheet: null }, { where: { sku: 'YE-KIOSK' } });
    await endUse('item', 'YE-KIOSK');
    await dropLoose(new Date(Date.now() + 3 * 86_400_000));
    expect((await see(id)).warnings.filter(({ is }) => is === 'gone')).toEqual([]);
    const { bytes } = value(await pagesOf(mara, id, again.composition));
    const pages = (await PDFDocument.load(bytes)).getPageCount();
    const without = value(await pagesOf(mara, id, { ...again.composition, annexes: [] }));
    expect(pages).toBe((await PDFDocument.load(without.bytes as Uint8Array)).getPageCount() + 1);
  });
});

describe('what is chosen', () => {
  it('is kept, remembered for the customer, and goes on with the next revision', async () => {
    const id = await quoteFor('C-1002');
    const view = await see(id);
    const own = plainRich('For you alone.');
    value(
      await keep(id, view, {
        colour: '#112233',
        blocks: view.composition.blocks.map((block) =>
          block.kind === 'closing' ? { ...block, own } : block,
        ),
      }),
    );
    expect((await see(id)).composition.colour).toBe('#112233');
    const other = await see(await quoteFor('C-1002'));
    expect([other.version, other.composition.colour]).toEqual([0, '#112233']);
    // What was written for one quote stays with it.
    expect(other.composition.blocks.find(({ kind }) => kind === 'closing')?.own).toBeNull();
    expect((await see(await quoteFor('C-1001'))).composition.colour).not.toBe('#112233');

    const sent = value(await sendQuote(mara, id, { version: value(await seeQuote(mara, id)).version }));
    const settled = await see(id);
    expect([settled.mayEdit, codes(await keep(id, settled, {}))]).toEqual([false, ['paper.settled']]);
    value(await reviseQuote(mara, id, { version: sent.version }));
    const next = await see(id);
    expect([next.version, next.mayEdit, next.composition.colour]).toEqual([0, true, '#112233']);
    expect(await said(id)).toContain('For you alone.');
  });

  it('is not put over what somebody else chose meanwhile', async () => {
    const id = await quoteFor('C-1004');
    const [one, other] = [await see(id), await see(id, joss)];
    value(await keep(id, one, { colour: '#111111' }));
    const late = await keep(id, other, { colour: '#222222' }, joss);
    expect([late.ok || late.status, codes(late)]).toEqual(['conflict', ['paper.composedBy']]);
    expect(late.ok || late.failures[0]?.params).toEqual({ name: mara.name });
    const all = await Promise.all(
      Array.from({ length: 8 }, async (_, at) => keep(id, await see(id), { colour: `#00000${String(at)}` })),
    );
    expect(all.filter(({ ok }) => ok).length).toBeGreaterThan(0);
    expect((await see(id)).version).toBe(1 + all.filter(({ ok }) => ok).length);
  });

  it('is nobody else’s: a dealer has none of the house, and templates of their own', async () => {
    const id = await quoteFor('C-1001');
    expect(codes(await seePaper(rhona, id))).toEqual(['quote.missing']);
    expect(codes(await quotation(rhona, id, 'pdf'))).toEqual(['quote.missing']);
    const own = (await listQuotes(rhona)).rows[0]?.id ?? '';
    const view = await see(own, rhona);
    expect(view.templates.map(({ code }) => code)).toEqual(['dealer']);
    expect(codes(await seePaper(mara, own))).toEqual(['quote.missing']);
  });

  it('takes along files that whoever chooses them may see, once they can be read', async () => {
    const id = await quoteFor('C-1004');
    const pdf = await PDFDocument.create();
    pdf.addPage([200, 200]);
    const theirs = value(await bring(joss, { name: 'theirs.pdf', bytes: await pdf.save() }));
    const ours = value(await bring(mara, { name: 'ours.pdf', bytes: await pdf.save() }));
    const broken = value(
      await bring(mara, { name: 'broken.pdf', bytes: new TextEncoder().encode('%PDF-1.7\n%…\n1 0 obj') }),
    );
    const view = await see(id);
    const annex = (file: string) => [{ file, name: 'A', kind: 'pdf' as const }];
    expect(codes(await keep(id, view, { annexes: annex(theirs.id) }))).toEqual(['files.missing']);
    expect(codes(await keep(id, view, { annexes: annex(broken.id) }))).toEqual(['paper.annexUnread']);
    expect(
      codes(
        await keep(id, view, {
          annexes: annex(ours.id).map((each) => ({ ...each, kind: 'picture' as const })),
        }),
      ),
    ).toEqual(['paper.annexKind']);
    // Looked at before it is kept, somebody else's is not there either.
    const count = async (file: string): Promise<number> => {
      const pages = value(await pagesOf(mara, id, { ...view.composition, annexes: annex(file) }));
      return (await PDFDocument.load(pages.bytes)).getPageCount();
    };
    expect((await count(ours.id)) - (await count(theirs.id))).toBe(1);
    // By their sizes alone it is told that they are too much; nothing of them is read.
    const large = Buffer.concat([await pdf.save(), Buffer.alloc(4 * 1024 * 1024, 32)]);
    const heavy = value(await bring(mara, { name: 'heavy.pdf', bytes: new Uint8Array(large) }));
    const many = Array.from({ length: 20 }, () => annex(heavy.id)).flat();
    expect(codes(await keep(id, view, { annexes: many }))).toEqual(['paper.annexSize']);
    expect(codes(await pagesOf(mara, id, { ...view.composition, annexes: many }))).toEqual([
      'paper.annexSize',
    ]);
    value(await keep(id, view, { annexes: annex(ours.id) }));
    expect(codes(await keep(id, await see(id), { colour: '#101010' }))).toEqual([]);
  });

  it.each([
    [
      'a block twice',
      (view: PaperView) => ({ blocks: [view.composition.blocks[0], view.composition.blocks[0]] }),
    ],
    [
      'a kind that there is not',
      (view: PaperView) => ({ blocks: [{ ...view.composition.blocks[0], kind: 'cost' }] }),
    ],
    ['a colour that is none', () => ({ colour: 'url(x)' })],
    ['markup for a text', (view: PaperView) => ({ blocks: [{ ...view.composition.blocks[0], own: '<b>' }] })],
    [
      'a megabyte of text',
      (view: PaperView) => ({
        blocks: [{ ...view.composition.blocks[0], own: plainRich('x'.repeat(1_000_000)) }],
      }),
    ],
    ['another field', () => ({ showCosts: true })],
  ])('%s is refused before anything is done', async (_, change) => {
    const view = await see(await quoteFor('C-1001'));
    const composition = { ...view.composition, ...change(view) };
    await expect(composeInput.validate({ version: 0, composition })).rejects.toThrow();
    await expect(composeInput.validate({ version: 0, composition: view.composition })).resolves.toBeDefined();
  });
});

describe('texts and templates of the house', () => {
  it('are followed by another version, and what was sent keeps to its own', async () => {
    const id = await quoteFor('C-1001');
    const quote = value(await seeQuote(mara, id));
    value(await sendQuote(mara, id, { version: quote.version }));
    const before = await said(id);
    expect(before).toContain('Goods stay ours until they are paid');
    const { texts } = await seePaperHouse(wen);
    const terms = texts.find(({ code }) => code === 'terms');
    const { version = 0, name = {}, place = 'document' } = terms ?? {};
    const words = { en: plainRich('New terms from {house.name}.'), de: plainRich('Neue Bedingungen.') };
    value(await keepText(wen, 'terms', { version, content: { name, place, words } }));
    expect(await said(id)).toBe(before);
    expect(await said(await quoteFor('C-1001'))).toContain('New terms from Harrowmoor Scale Works.');
    expect(codes(await keepText(wen, 'terms', { version, content: { name, place, words } }))).toEqual([
      'paper.changed',
    ]);
  });

  it('have placeholders that can be read, in conditions too', async () => {
    const content = {
      name: { en: 'X' },
      place: 'document' as const,
      words: { en: plainRich('{quote.nothing}') },
    };
    expect(codes(await keepText(wen, 'fresh', { version: 0, content }))).toEqual(['formula.unknownName']);
    expect(codes(await keepText(wen, '../etc', { version: 0, content: { ...content, words: {} } }))).toEqual([
      'paper.badCode',
    ]);
    const house = (await seePaperHouse(wen)).templates.find(({ code }) => code === 'house');
    if (!house) throw new Error('no template');
    const [first, ...rest] = house.content.blocks;
    if (!first) throw new Error('no block');
    const changed = (block: object) =>
      keepTemplate(wen, 'house', {
        version: house.version,
        content: { ...house.content, blocks: [{ ...first, ...block }, ...rest] },
      });
    expect(codes(await changed({ when: 'quote.net' }))).toEqual(['formula.resultType']);
    expect(codes(await changed({ text: 'nowhere' }))).toEqual(['paper.noText']);
  });

  it('that are used stay: a text in a template is refused, a template in a document leaves that as it is', async () => {
    const house = await seePaperHouse(wen);
    const closing = house.texts.find(({ code }) => code === 'closing');
    const refused = await dropText(wen, 'closing', closing?.version ?? 0);
    expect(codes(refused)).toEqual(['paper.textUsed']);
    const content = house.templates.find(({ code }) => code === 'house')?.content;
    if (!content) throw new Error('no template');
    value(await keepTemplate(wen, 'spare', { version: 0, content: { ...content, colour: '#654321' } }));
    const id = await quoteFor('C-1001');
    const view = await see(id);
    value(await keep(id, view, { template: 'spare', colour: '#654321' }));
    value(await dropTemplate(wen, 'spare', 1));
    const after = await see(id);
    expect(after.composition.colour).toBe('#654321');
    expect(after.warnings).toEqual([{ is: 'gone', what: 'template', name: 'spare' }]);
    expect(codes(await dropTemplate(wen, 'spare', 2))).toEqual(['paper.missing']);
    // Made again it goes on counting.
    value(await keepTemplate(wen, 'spare', { version: 0, content }));
    value(await dropTemplate(wen, 'spare', 3));
  });

  it('are read as they travel, with all else left out', async () => {
    const content = {
      name: { en: 'A' },
      place: 'document',
      words: { en: [{ is: 'paragraph', spans: [{ text: 'a', x: 1 }] }], de: null },
    };
    expect(await paperTextInput.validate({ version: 0, content })).toEqual({
      version: 0,
      content: { ...content, words: { en: [{ is: 'paragraph', spans: [{ text: 'a' }] }], de: null } },
    });
    await expect(
      paperTextInput.validate({ version: 0, content: { ...content, name: { en: ' ' } } }),
    ).rejects.toThrow();
    await expect(paperTemplateInput.validate({ version: 0, content: {} })).rejects.toThrow();
  });
});

describe('a build alone', () => {
  it('has a specification sheet without prices, and all its drawings in an archive', async () => {
    const { builds } = connected().records;
    const row = await builds.findOne({ raw: true });
    const seen = await Promise.all(
      (await builds.findAll({ raw: true })).map(async ({ id }) => ({
        id,
        made: await specification(mara, id, 'html'),
      })),
    );
    const [first] = seen.flatMap(({ id, made }) => (made.ok ? [{ id, made: made.value }] : []));
    if (!first || !row) throw new Error('no build');
    const text = new TextDecoder().decode(first.made.bytes as Uint8Array);
    expect(text).toMatch(/Specification|Length|Capacity/);
    expect(text.replace(/base64,[^"]*/g, '')).not.toMatch(/GBP|EUR|USD|price/i);
    for (const format of ['pdf', 'docx'])
      expect((value(await specification(mara, first.id, format)).bytes as Uint8Array).length).toBeGreaterThan(
        4_000,
      );
    expect(codes(await specification(mara, first.id, 'exe'))).toEqual(['file.format']);
    const archive = value(await drawingsArchive(mara, first.id));
    const names = Buffer.from(archive.bytes as Uint8Array).toString('latin1');
    for (const name of ['side.svg', 'side.dxf', 'drawings.pdf', 'space.glb', 'space.ifc', 'space-coarse.ifc'])
      expect(names).toContain(name);
  });
});
