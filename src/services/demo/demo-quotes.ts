/** The demo's quotes, made through the same services that people use. */
import type { QuoteView } from '../../contract';
import type { Lost } from '../../core/quotes';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import { inDays, onDay } from '../kernel/clock';
import type { Result } from '../kernel/failure';
import { acceptQuote } from '../orders/orders';
import { loseQuote, reviseQuote, sendQuote } from '../quotes/history/revisions';
import { changeLine, changeLines } from '../quotes/lines/lines';
import { addByNumber, putOnQuote } from '../quotes/lines/quote-builds';
import { changeWhole, openQuote, seeQuote } from '../quotes/quotes';
import { answerSignOff, askSignOff } from '../quotes/sign-off/sign-offs';
import type { AnswerFile, LineFile, QuoteFile } from './demo-files';

/** The people of the demo, by their addresses. */
export type People = ReadonlyMap<string, Actor>;

/** Makes a quote as its file tells: its lines, what is typed for it, and what became of it. */
export async function loadQuote(file: QuoteFile, people: People): Promise<void> {
  const actor = people.get(file.by);
  if (!actor) throw new Error(`nobody is called ${file.by}`);
  const { daysAgo, settledDaysAgo } = file;
  let quote = await ago(daysAgo, () => opened(file, actor));
  if (file.ask !== undefined)
    quote = must(
      await ago(daysAgo, () => askSignOff(actor, quote.id, { version: quote.version, reason: file.ask ?? '' })),
    );
  if (file.answer) quote = await answered(quote, file.answer, people);
  if (daysAgo !== undefined) await stamp(quote.id, inDays(-daysAgo));
  if (file.send) {
    const sent = file.sentDaysAgo ?? (daysAgo ?? 1) - 1;
    quote = must(await ago(sent, () => sendQuote(actor, quote.id, { version: quote.version })));
  }
  if (file.then) quote = await revise(actor, quote, file.then);
  const version = async (): Promise<number> => must(await seeQuote(actor, quote.id)).version;
  if (file.accept) must(await ago(settledDaysAgo, async () => acceptQuote(actor, quote.id, await version())));
  if (file.lost)
    must(
      await ago(settledDaysAgo, async () =>
        loseQuote(actor, quote.id, { version: await version(), ...(file.lost as Lost) }),
      ),
    );
  await touched(quote.id, settledDaysAgo ?? (file.then || file.accept || file.lost ? undefined : daysAgo));
}

/** Does something as on a day that is past; today where none is told. */
const ago = <T>(days: number | undefined, work: () => Promise<T>): Promise<T> =>
  days === undefined || days <= 0 ? work() : onDay(inDays(-days), work);

async function opened(file: QuoteFile, actor: Actor): Promise<QuoteView> {
  const customer = await connected().records.customers.findOne({ where: { number: file.customer } });
  let quote = must(await openQuote(actor, { customerId: customer?.id ?? '', title: file.title }));
  for (const line of file.lines) quote = await addLine(actor, quote, line);
  if (file.resale)
    quote = must(await changeWhole(actor, quote.id, { version: quote.version, resale: file.resale }));
  if (file.whole)
    quote = must(await changeWhole(actor, quote.id, { version: quote.version, whole: file.whole }));
  return quote;
}

/** Answers what was asked of whoever signs. */
async function answered(quote: QuoteView, file: AnswerFile, people: People): Promise<QuoteView> {
  const asked = quote.signOff?.history.find(({ state }) => state === 'asked');
  const { answer, comment, counter = [] } = file;
  return must(
    await answerSignOff(people.get(file.by) as Actor, quote.id, asked?.id ?? '', {
      version: quote.version,
      answer,
      comment,
      counter: counter.map(({ line, rate }) => ({ line: quote.lines[line - 1]?.id ?? '', rate })),
    }),
  );
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

/** Makes what was just made of a quote as old as it is told to be. */
async function stamp(quoteId: string, day: string): Promise<void> {
  const { revisions, quotes, signOffs } = connected().records;
  const then = new Date(`${day}T09:00:00Z`);
  await quotes.update({ createdAt: then }, { where: { id: quoteId } });
  const [made] = await revisions.findAll({ where: { quoteId } });
  await made?.update({ madeAt: then });
  await signOffs.update({ askedAt: then }, { where: { revisionId: made?.id ?? '' } });
}

/** Says when a quote was last changed, and its order made, where that is not today. */
async function touched(quoteId: string, daysAgo: number | undefined): Promise<void> {
  if (daysAgo === undefined || daysAgo <= 0) return;
  const then = new Date(`${inDays(-daysAgo)}T15:00:00Z`);
  await connected().records.quotes.update({ updatedAt: then }, { where: { id: quoteId } });
  await connected().records.orders.update({ createdAt: then }, { where: { quoteId } });
}

/** What came of it; where it was refused, the demo is wrong. */
function must<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(`demo data refused: ${JSON.stringify(result.failures)}`);
  return result.value;
}
