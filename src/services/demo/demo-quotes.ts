/** The demo's quotes, made through the same services that people use. */
import { subDays } from 'date-fns';
import type { QuoteView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import { inDays } from '../kernel/clock';
import type { Result } from '../kernel/failure';
import { acceptQuote } from '../orders/orders';
import { reviseQuote, sendQuote } from '../quotes/history/revisions';
import { changeLine, changeLines } from '../quotes/lines/lines';
import { addByNumber, putOnQuote } from '../quotes/lines/quote-builds';
import { changeWhole, openQuote, seeQuote } from '../quotes/quotes';
import { askSignOff } from '../quotes/sign-off/sign-offs';
import type { LineFile, QuoteFile } from './demo-files';

/** Makes a quote as its file tells: its lines, what is typed for it, and what became of it. */
export async function loadQuote(file: QuoteFile, actor: Actor): Promise<void> {
  const customer = await connected().records.customers.findOne({ where: { number: file.customer } });
  let quote = must(await openQuote(actor, { customerId: customer?.id ?? '', title: file.title }));
  for (const line of file.lines) quote = await addLine(actor, quote, line);
  if (file.resale)
    quote = must(await changeWhole(actor, quote.id, { version: quote.version, resale: file.resale }));
  if (file.whole)
    quote = must(await changeWhole(actor, quote.id, { version: quote.version, whole: file.whole }));
  if (file.ask) quote = must(await askSignOff(actor, quote.id, { version: quote.version, reason: file.ask }));
  if (file.daysAgo !== undefined) await age(quote, file.daysAgo);
  if (file.send) quote = await send(actor, quote, file.daysAgo ?? 1);
  if (file.then) quote = await revise(actor, quote, file.then);
  if (file.accept) must(await acceptQuote(actor, quote.id, must(await seeQuote(actor, quote.id)).version));
}

async function addLine(actor: Actor, before: QuoteView, file: LineFile): Promise<QuoteView> {
  let quote = file.model
    ? await addBuild(actor, before, file)
    : must(
        await addByNumber(actor, before.id, {
          version: before.version,
          sku: file.item ?? '',
          quantity: file.quantity,
        }),
      );
  const line = quote.lines.at(-1)?.id;
  if (line === undefined) return quote;
  const { hand, locked, optional, term, price, group } = file;
  const typed = {
    ...(hand ? { hand } : {}),
    ...(locked ? { locked } : {}),
    ...(optional ? { optional } : {}),
    ...(term ? { term } : {}),
    ...(price ? { price } : {}),
  };
  if (group !== undefined)
    quote = must(await changeLines(actor, quote.id, { version: quote.version, lines: [line], group }));
  if (Object.keys(typed).length > 0)
    quote = must(await changeLine(actor, quote.id, line, { version: quote.version, ...typed }));
  return quote;
}

async function addBuild(actor: Actor, quote: QuoteView, file: LineFile): Promise<QuoteView> {
  const { model, decisions = [], passed = [], quantity } = file;
  const build = must(await beginBuild(actor, { quoteId: quote.id, modelId: model ?? '' }));
  must(await saveContent(actor, build.id, { version: 1, decisions, passed, special: [] }));
  return must(await putOnQuote(actor, build.id, { version: quote.version, quantity }));
}

async function send(actor: Actor, quote: QuoteView, daysAgo: number): Promise<QuoteView> {
  const sent = must(await sendQuote(actor, quote.id, { version: quote.version }));
  await connected().records.revisions.update(
    { settledAt: subDays(new Date(), daysAgo - 1) },
    { where: { quoteId: quote.id } },
  );
  return sent;
}

async function revise(
  actor: Actor,
  sent: QuoteView,
  changes: NonNullable<QuoteFile['then']>,
): Promise<QuoteView> {
  let quote = must(await reviseQuote(actor, sent.id, { version: sent.version }));
  for (const { line, ...change } of changes) {
    const id = quote.lines[line - 1]?.id ?? '';
    quote = must(await changeLine(actor, quote.id, id, { version: quote.version, ...change }));
  }
  return quote;
}

/** Makes a quote as old as it is told to be: its lines stand on the prices of then. */
async function age(quote: QuoteView, days: number): Promise<void> {
  const { lines, revisions, quotes } = connected().records;
  const then = subDays(new Date(), days);
  await lines.update({ pricedOn: inDays(-days) }, { where: { id: quote.lines.map((line) => line.id) } });
  await revisions.update({ madeAt: then }, { where: { quoteId: quote.id } });
  await quotes.update({ createdAt: then }, { where: { id: quote.id } });
}

function must<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(`demo data refused: ${JSON.stringify(result.failures)}`);
  return result.value;
}
