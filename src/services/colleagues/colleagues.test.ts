/** Work between colleagues: who may, who is told, what comes of an answer, and that nobody outside hears of it. */
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ColleaguesView, QuoteView, RequestView } from '../../contract';
import { connected } from '../../data';
import type { Decision } from '../../core/engine';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import { desk } from '../desk/desk';
import { bring, openFile } from '../files/files';
import { inDays, today } from '../kernel/clock';
import { endLive, hear, type Word } from '../kernel/live';
import { openDemo, personOf } from '../kernel/testing';
import { seeQuoteSending } from '../outbox/sending';
import { codes, readyQuote, value, workAll } from '../outbox/testing';
import { reviseQuote, sendQuote } from '../quotes/history/revisions';
import { putOnQuote } from '../quotes/lines/quote-builds';
import { seeQuote } from '../quotes/quotes';
import { seeShared, sharedDocument } from '../shares/shared';
import { shareQuote } from '../shares/shares';
import { handOver } from './hand-over';
import { attach, changeFollowUp, detach, followUp, takeBackNote, writeNote } from './notes';
import { answerColleague, askColleague, closeRequest, seeBuildItems, takePart } from './requests';
import { seeColleagues } from './view';

const people = new Map<string, Actor>();
const person = (name: string): Actor => people.get(name) as Actor;

beforeAll(async () => {
  await openDemo('colleagues');
  for (const name of ['mara', 'joss', 'tobias', 'wen', 'ines'])
    people.set(name, await personOf(`${name}@harrowmoor.example`));
  people.set('rhona', await personOf('rhona@dunmere.example'));
});
afterAll(async () => {
  await endLive();
  await connected().close();
});

const open = (title = 'Colleagues') => readyQuote(person('mara'), 'C-1001', title);
/** A quote with a build in its last line. */
async function withBuild(): Promise<{ quote: QuoteView; line: string; item: string }> {
  const bare = await open();
  // As one of the demo's that is whole.
  const [whole] = await connected().sequelize.query<{ decisions: Decision[] }>(
    `select b.asked || b.decisions as decisions from builds b join model_versions v on v.id = b.model_version_id
     where v.model_id = 'ridgeback' and b.outcome ->> 'complete' = 'true' and b.outcome -> 'warnings' = '[]' and b.special = '[]'
     order by b.id limit 1`,
    { type: QueryTypes.SELECT },
  );
  const begun = value(await beginBuild(person('mara'), { quoteId: bare.id, modelId: 'ridgeback' }));
  value(
    await saveContent(person('mara'), begun.id, {
      version: 1,
      decisions: whole?.decisions ?? [],
      passed: [],
      special: [],
    }),
  );
  const quote = value(await putOnQuote(person('mara'), begun.id, { version: bare.version, quantity: 1 }));
  const line = quote.lines.at(-1)?.id ?? '';
  const items = value(await seeBuildItems(person('mara'), quote.id, line));
  const sold = new Set(quote.lines.at(-1)?.build?.parts.flatMap(({ item }) => item ?? []));
  const item = items.find(({ sku }) => sold.has(sku))?.sku;
  if (item === undefined) throw new Error('nothing in the build has a price of its own');
  return { quote, line, item };
}
const requestIn = (view: ColleaguesView, at = 0): RequestView & { id: string } => {
  const found = view.thread.filter(({ request }) => request !== null)[at];
  if (!found?.request) throw new Error('nothing was asked');
  return { ...found.request, id: found.id };
};
const asked = async (quote: QuoteView, line: string, item: string | null) =>
  requestIn(
    value(
      await askColleague(person('mara'), quote.id, {
        kind: 'technical',
        role: 'modeller',
        line,
        item,
        words: 'Hot-dip galvanised to 120 µm: what does it take?',
      }),
    ),
  );
const part = { text: 'Deck plate, galvanised to 120 µm', cost: '180.50', price: '420', days: 25 };

describe('notes', () => {
  it('are told with who and when, and taken back by who wrote them alone', async () => {
    const quote = await open();
    value(await writeNote(person('mara'), quote.id, 'Prefers to be called after four.'));
    const seen = value(await seeColleagues(person('joss'), quote.id));
    expect(seen.thread).toMatchObject([
      { by: person('mara').name, words: 'Prefers to be called after four.', mayTakeBack: false },
    ]);
    const note = seen.thread[0]?.id ?? '';
    expect(codes(await takeBackNote(person('joss'), note))).toEqual(['colleague.notYours']);
    expect(codes(await takeBackNote(person('rhona'), note))).toEqual(['colleague.missing']);
    expect(value(await takeBackNote(person('mara'), note)).thread).toEqual([]);
    expect(codes(await takeBackNote(person('mara'), note))).toEqual(['colleague.missing']);
    expect(codes(await writeNote(person('ines'), quote.id, 'a'))).toEqual(['refused.permission']);
    expect(codes(await writeNote(person('rhona'), quote.id, 'a'))).toEqual(['quote.missing']);
  });

  it('and all else among colleagues, are behind no share, in no document and no mail', async () => {
    const quote = await open();
    const secret = 'Would pay ten per cent more 9917';
    value(await writeNote(person('mara'), quote.id, secret));
    value(await followUp(person('mara'), quote.id, { day: inDays(3), words: secret }));
    value(
      await askColleague(person('mara'), quote.id, { kind: 'look', of: person('joss').id, words: secret }),
    );
    const sent = value(await sendQuote(person('mara'), quote.id, { version: quote.version }));
    const { link } = value(
      await shareQuote(
        person('mara'),
        sent.id,
        { name: 'Ana', address: '', until: inDays(9) },
        'https://scales.example',
      ),
    );
    const token = link.split('/s/')[1] ?? '';
    value(await seeShared(token));
    await workAll();
    const shared = value(await seeShared(token));
    expect(JSON.stringify(shared)).not.toContain('9917');
    expect(shared.documents.length).toBeGreaterThan(0);
    for (const { id } of shared.documents)
      expect(Buffer.from(value(await sharedDocument(token, id)).bytes).toString('latin1')).not.toContain(
        '9917',
      );
    expect(JSON.stringify(value(await seeQuoteSending(person('mara'), sent.id)))).not.toContain('9917');
  });
});

describe('a technical question', () => {
  it('is answered with a special part, which stands in the build and in the price once it is taken', async () => {
    const { quote, line, item } = await withBuild();
    const heard: (Word | 'gap' | 'end')[] = [];
    const end = hear(person('wen').id, (word) => heard.push(word));
    const request = await asked(quote, line, item);
    await expect.poll(() => heard).toEqual([{ kind: 'colleague', quote: quote.id }]);
    end();
    expect((await desk(person('wen'))).colleagues.find(({ id }) => id === request.id)).toMatchObject({
      state: 'open',
      line: quote.lines.length,
      who: person('mara').name,
      number: quote.number,
    });
    expect((await desk(person('joss'))).colleagues.filter(({ id }) => id === request.id)).toEqual([]);
    // Whoever answers is told what the item usually costs and sells for, in the currency of the quote.
    const seen = requestIn(value(await seeColleagues(person('wen'), quote.id)));
    expect(seen).toMatchObject({ mayAnswer: true, mayTake: false, usual: { currency: quote.currency } });

    expect(codes(await answerColleague(person('joss'), request.id, { words: 'a' }))).toEqual([
      'colleague.notAsked',
    ]);
    expect(codes(await answerColleague(person('mara'), request.id, { words: 'a' }))).toEqual([
      'colleague.notAsked',
    ]);
    // Of two that answer at once one is first.
    const both = await Promise.all([
      answerColleague(person('wen'), request.id, { words: 'It can be done.', part }),
      answerColleague(person('wen'), request.id, { words: 'It can be done.', part }),
    ]);
    expect(both.flatMap(codes)).toEqual(['colleague.answered']);
    expect((await desk(person('wen'))).colleagues.filter(({ id }) => id === request.id)).toEqual([]);
    expect((await desk(person('mara'))).colleagues.find(({ id }) => id === request.id)).toMatchObject({
      state: 'answered',
      words: 'It can be done.',
    });

    const taken = value(await takePart(person('mara'), request.id));
    expect(requestIn(taken)).toMatchObject({ state: 'taken', part: { ...part, item } });
    const after = value(await seeQuote(person('mara'), quote.id));
    expect(after.lines.at(-1)?.special).toEqual([{ item, text: part.text }]);
    expect(after.totals.net).not.toBe(quote.totals.net);
    expect(codes(await takePart(person('mara'), request.id))).toEqual(['colleague.nothingToTake']);
    expect((await desk(person('mara'))).colleagues.filter(({ id }) => id === request.id)).toEqual([]);
  });

  it('stays with its line in the next revision, and its part goes into the build that is open then', async () => {
    const { quote, line, item } = await withBuild();
    const request = await asked(quote, line, item);
    const sent = value(await sendQuote(person('mara'), quote.id, { version: quote.version }));
    value(await answerColleague(person('wen'), request.id, { words: 'Yes.', part }));
    expect(requestIn(value(await seeColleagues(person('mara'), quote.id))).mayTake).toBe(false);
    expect(codes(await takePart(person('mara'), request.id))).toEqual(['build.settled']);
    const revised = value(await reviseQuote(person('mara'), quote.id, { version: sent.version }));
    value(await takePart(person('mara'), request.id));
    const after = value(await seeQuote(person('mara'), quote.id));
    expect(after.revision.number).toBe(revised.revision.number);
    expect(after.lines.at(-1)?.special).toEqual([{ item, text: part.text }]);
    const before = value(await seeQuote(person('mara'), quote.id, 1));
    expect(before.lines.at(-1)?.special).toEqual([]);
  });

  it('is refused where there is nothing to ask, or nobody to ask it of', async () => {
    const { quote, line, item } = await withBuild();
    const ask = (more: object) =>
      askColleague(person('mara'), quote.id, {
        kind: 'technical',
        role: 'modeller',
        line,
        item,
        words: 'a',
        ...more,
      });
    const plain = quote.lines[0]?.id ?? '';
    expect(codes(await ask({ item: 'SV-COMM' }))).toEqual(['colleague.notInBuild']);
    expect(codes(await ask({ line: plain }))).toEqual(['colleague.notInBuild']);
    expect(codes(await ask({ line: quote.id }))).toEqual(['line.missing']);
    expect(codes(await ask({ role: null, of: person('rhona').id }))).toEqual(['colleague.unknown']);
    expect(codes(await ask({ role: null, of: person('ines').id }))).toEqual(['colleague.unknown']);
    expect(codes(await ask({ role: null, of: person('mara').id }))).toEqual(['colleague.unknown']);
    const words = requestIn(value(await ask({ line: plain, item: null })));
    expect(codes(await answerColleague(person('wen'), words.id, { words: 'a', part }))).toEqual([
      'colleague.noItem',
    ]);
    value(await answerColleague(person('wen'), words.id, { words: '<b>No</b>' }));
    expect(codes(await takePart(person('mara'), words.id))).toEqual(['colleague.nothingToTake']);
  });

  it('can be withdrawn by who asked it, and is answered by nobody then', async () => {
    const { quote, line, item } = await withBuild();
    const request = await asked(quote, line, item);
    expect(codes(await closeRequest(person('tobias'), request.id))).toEqual(['colleague.notYours']);
    expect(requestIn(value(await closeRequest(person('mara'), request.id))).state).toBe('withdrawn');
    expect(codes(await answerColleague(person('wen'), request.id, { words: 'a' }))).toEqual([
      'colleague.answered',
    ]);
    expect((await desk(person('wen'))).colleagues.filter(({ id }) => id === request.id)).toEqual([]);
  });

  it('of a dealer goes to nobody in the house, where their quotes are not seen', async () => {
    const rhona = person('rhona');
    const row = await connected().records.customers.findOne({
      where: { dealerId: rhona.dealerId },
      raw: true,
    });
    const quote = await readyQuote(rhona, row?.number ?? '');
    const look = { kind: 'look' as const, of: person('mara').id, words: 'a' };
    expect(codes(await askColleague(rhona, quote.id, look))).toEqual(['colleague.dealer']);
    const seen = value(await seeColleagues(rhona, quote.id));
    expect(seen.may).toMatchObject({ ask: false, keep: true });
    expect(seen.people.filter(({ role }) => role !== 'dealer')).toEqual([]);
  });
});

describe('a day to follow up on', () => {
  it('stands on the Desk from a week before, until it is done by anybody', async () => {
    const quote = await open();
    const mine = async (who: string) =>
      (await desk(person(who))).followUps.filter(({ quoteId }) => quoteId === quote.id);
    value(await followUp(person('mara'), quote.id, { day: inDays(8), words: 'Later' }));
    value(await followUp(person('mara'), quote.id, { day: today(), words: 'Today' }));
    value(await followUp(person('mara'), quote.id, { day: inDays(-2), words: '', for: person('joss').id }));
    expect(await mine('mara')).toMatchObject([{ words: 'Today', due: 'today' }]);
    const [late] = await mine('joss');
    expect(late).toMatchObject({ due: 'overdue', day: inDays(-2) });
    value(await changeFollowUp(person('mara'), late?.id ?? '', { day: inDays(7) }));
    expect(await mine('joss')).toMatchObject([{ due: 'soon' }]);
    value(await changeFollowUp(person('mara'), late?.id ?? '', { done: true }));
    expect(await mine('joss')).toEqual([]);
    value(await changeFollowUp(person('mara'), late?.id ?? '', { done: false }));
    expect(await mine('joss')).toHaveLength(1);
    expect(codes(await changeFollowUp(person('rhona'), late?.id ?? '', { done: true }))).toEqual([
      'colleague.missing',
    ]);
    expect(codes(await followUp(person('mara'), quote.id, { day: '2099-01-01', words: '' }))).toEqual([
      'colleague.farDay',
    ]);
    expect(
      codes(await followUp(person('mara'), quote.id, { day: today(), words: '', for: person('rhona').id })),
    ).toEqual(['colleague.unknown']);
  });
});

describe('an attachment', () => {
  const pdf = new TextEncoder().encode('%PDF-1.4\n1 0 obj\n<<>>\nendobj\ntrailer\n<<>>\n%%EOF\n');
  it('is seen by who sees the quote, offered to mails, and gone for all when it is taken away', async () => {
    const quote = await open();
    const { id: file, name } = value(await bring(person('mara'), { name: 'Quarry floor.pdf', bytes: pdf }));
    expect((await openFile(person('joss'), file, 'whole')).ok).toBe(false);
    const other = { file, kind: 'drawing' as const, words: '' };
    expect(codes(await attach(person('joss'), quote.id, other))).toEqual(['files.missing']);
    expect(value(await attach(person('mara'), quote.id, other)).files).toMatchObject([
      { file, name, format: 'pdf', kind: 'drawing' },
    ]);
    expect(Buffer.from(value(await openFile(person('joss'), file, 'whole')).bytes)).toEqual(Buffer.from(pdf));
    expect((await openFile(person('rhona'), file, 'whole')).ok).toBe(false);
    const { documents } = value(await seeQuoteSending(person('mara'), quote.id));
    expect(documents.filter(({ attached }) => attached)).toMatchObject([{ name, usual: false }]);
    expect(codes(await detach(person('mara'), quote.id, quote.id))).toEqual(['files.missing']);
    expect(value(await detach(person('joss'), quote.id, file)).files).toEqual([]);
    expect((await openFile(person('joss'), file, 'whole')).ok).toBe(false);
  });

  it('that lies about its kind is refused, and a drawing as text keeps the ending that opens it', async () => {
    const bytes = (text: string) => new TextEncoder().encode(text);
    expect(
      codes(await bring(person('mara'), { name: 'gate.pdf', bytes: bytes('<html><script>1</script>') })),
    ).toEqual(['files.unknownKind']);
    expect(
      codes(await bring(person('mara'), { name: 'gate.pdf', bytes: new Uint8Array([77, 90, 144, 0]) })),
    ).toEqual(['files.unknownKind']);
    const dxf = value(
      await bring(person('mara'), { name: '../gate.dxf', bytes: bytes('0\nSECTION\n0\nEOF\n') }),
    );
    expect(dxf).toMatchObject({ name: 'gate.dxf', kind: 'text' });
    const exe = value(await bring(person('mara'), { name: 'gate.bat', bytes: bytes('echo 1') }));
    expect(exe.name).toBe('gate.txt');
  });
});

describe('a quote that is handed over', () => {
  it('is the other’s with all that waits for it, by its owner or who answers for it alone', async () => {
    const quote = await open('Over');
    const { id, version } = quote;
    value(await followUp(person('mara'), id, { day: today(), words: 'Call' }));
    const request = requestIn(
      value(
        await askColleague(person('mara'), id, { kind: 'look', role: 'modeller', words: 'Is this right?' }),
      ),
    );
    const to = person('joss').id;
    const words = 'I am away until the third.';
    expect(codes(await handOver(person('joss'), id, { version, to, words }))).toEqual(['colleague.notYours']);
    expect(codes(await handOver(person('mara'), id, { version: version + 1, to, words }))).toEqual([
      'quote.staleOwn',
    ]);
    for (const nobody of [person('wen').id, person('rhona').id, person('mara').id, id])
      expect(codes(await handOver(person('mara'), id, { version, to: nobody, words }))).toEqual([
        'colleague.unknown',
      ]);
    const seen = value(await handOver(person('mara'), id, { version, to, words }));
    expect(seen.thread[0]).toMatchObject({
      handed: { from: person('mara').name, to: person('joss').name },
      words,
      mayTakeBack: false,
    });
    expect(value(await seeQuote(person('joss'), id)).owner).toBe(person('joss').name);
    const waiting = await desk(person('joss'));
    expect(waiting.quotes.some((each) => each.id === id)).toBe(true);
    expect(waiting.followUps.filter((each) => each.quoteId === id)).toHaveLength(1);
    value(await answerColleague(person('wen'), request.id, { words: 'It is.' }));
    expect((await desk(person('joss'))).colleagues.some((each) => each.id === request.id)).toBe(true);
    expect((await desk(person('mara'))).followUps.filter((each) => each.quoteId === id)).toEqual([]);
    // Who signs for the house gives it back.
    const now = value(await seeQuote(person('joss'), id)).version;
    value(await handOver(person('tobias'), id, { version: now, to: person('mara').id, words: '' }));
    expect(value(await seeQuote(person('mara'), id)).owner).toBe(person('mara').name);
  });
});
