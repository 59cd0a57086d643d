/** Data sheets of the items on a quote: proposed as annexes, and kept for the quote as they are when they are taken. */
import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { PaperView } from '../../contract';
import type { Annex } from '../../core/paper';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { use } from '../files/files';
import { done, type Result } from '../kernel/failure';
import { partsIn, priceLines } from '../quotes/figures/quote-pricing';
import type { QuoteState } from '../quotes/quote-state';
import { reference } from '../settings/reference-data';

/** Proposed at most. */
const mostProposed = 40;

/** Data sheets of what stands on the lines and in their builds, that do not go along yet; by line. */
export async function proposedAnnexes(
  state: QuoteState,
  taken: readonly Annex[],
): Promise<PaperView['proposed']> {
  const { items } = await reference();
  const priced = await priceLines(await partsIn(state));
  const skus = new Set(
    priced.flatMap(({ line, parts }) => [
      line.sku,
      ...(parts?.parts ?? []).flatMap(({ item }) => item ?? []),
    ]),
  );
  const sheets = [...skus].flatMap((sku) => {
    const { dataSheet = null, name = {} } = items.get(sku) ?? {};
    return dataSheet === null ? [] : [{ sku, name, file: dataSheet }];
  });
  if (sheets.length === 0) return [];
  const { files } = connected().records;
  const rows = await files.findAll({
    where: { id: { [Op.in]: [...sheets, ...taken].map(({ file }) => file) } },
    attributes: ['id', 'hash', 'name'],
    raw: true,
  });
  const byId = new Map(rows.map((row) => [row.id, row]));
  // A copy that was taken already has the same content.
  const there = new Set(taken.map(({ file }) => byId.get(file)?.hash ?? file));
  const seen = new Set<string>();
  return sheets
    .flatMap(({ sku, name, file }) => {
      const row = byId.get(file);
      if (!row || there.has(row.hash) || seen.has(row.hash)) return [];
      seen.add(row.hash);
      return [{ file, sku, name, fileName: row.name }];
    })
    .slice(0, mostProposed);
}

/**
 * Annexes as they are kept for a quote: what somebody brought is used by it; of an item's data sheet it has its own from
 * now on, which stays when the item gets another.
 */
export async function keepAnnexes(
  actor: Actor,
  quoteId: string,
  annexes: readonly Annex[],
  before: readonly Annex[],
): Promise<Result<Annex[]>> {
  const kept: Annex[] = [];
  for (const annex of annexes) {
    const sheet = await sheetAt(annex.file);
    if (sheet) kept.push({ ...annex, file: await ownCopy(actor, quoteId, sheet) });
    else {
      if (!before.some(({ file }) => file === annex.file)) {
        const used = await use(actor, annex.file, 'quote', quoteId);
        if (!used.ok) return used;
      }
      kept.push(annex);
    }
  }
  return done(kept);
}

/** A file that is the data sheet of an item. */
async function sheetAt(id: string): Promise<{ hash: string; name: string } | null> {
  const { files, items } = connected().records;
  const file = await files.findOne({ where: { id, about: 'item' }, raw: true });
  const item = file && (await items.findOne({ where: { dataSheet: id }, attributes: ['sku'], raw: true }));
  return item ? file : null;
}

/** The file of a quote with the same content, made where there is none yet. */
async function ownCopy(
  actor: Actor,
  quoteId: string,
  { hash, name }: { hash: string; name: string },
): Promise<string> {
  const { files } = connected().records;
  const use = { hash, about: 'quote', aboutId: quoteId };
  const there = await files.findOne({ where: use, attributes: ['id'], raw: true });
  if (there) return there.id;
  const id = randomUUID();
  await files.create({ id, ...use, name, owner: actor.id, madeAt: new Date() });
  return id;
}
