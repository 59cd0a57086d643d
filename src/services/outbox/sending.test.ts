/** Mails about quotes and builds: what they begin with, what goes, and what stays of them. */
import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import PostalMime from 'postal-mime';
import { quoteMailInput, type BuildMailInput, type MailView, type QuoteView } from '../../contract';
import { connected } from '../../data';
import { setDown } from '../../standins/outbox';
import type { Actor } from '../access/actor';
import { desk } from '../desk/desk';
import { beginBuild } from '../builds/begin';
import { log } from '../kernel/log';
import { openDemo, personOf } from '../kernel/testing';
import { loseQuote } from '../quotes/history/revisions';
import { seeQuote } from '../quotes/quotes';
import { contentOf, openShelved } from '../shelf/shelf';
import { quotationOf } from './documents';
import { changeMailServer, giveBack, listMails, messageFile, seeMail, seenMail, sendAgain } from './mails';
import { mailBuild, mailQuote, seeBuildSending, seeQuoteSending } from './sending';
import { codes, promptWorker, readyQuote, value, workAll } from './testing';

let mara: Actor;
let joss: Actor;
let rhona: Actor;
let ines: Actor;
const base = 'https://scales.example';
const mail = (more: Partial<BuildMailInput> = {}): BuildMailInput => ({
  recipients: [{ as: 'to', name: 'Ana Kestrel', address: 'ana@kestrel.example' }],
  subject: 'Our quotation',
  words: 'Dear Ana,\n\nhere it is.\n\n{link}\n\nMara',
  documents: [{ is: 'quotation', format: 'pdf' }],
  share: null,
  ...more,
});
const sendTo = async (quote: QuoteView, more: Partial<BuildMailInput> = {}): Promise<MailView> =>
  value(await mailQuote(mara, quote.id, { version: quote.version, ...mail(more) }, base));
const rawOf = async (id: string): Promise<Buffer> =>
  (await connected().records.mails.findByPk(id, { raw: true }))?.raw ?? Buffer.alloc(0);

beforeAll(async () => {
  // Mails that wait here are meant to.
  log.level = 'silent';
  await openDemo('sending');
  mara = await personOf('mara@harrowmoor.example');
  joss = await personOf('joss@harrowmoor.example');
  rhona = await personOf('rhona@dunmere.example');
  ines = await personOf('ines@harrowmoor.example');
});
afterAll(() => connected().close());

describe('a mail about a quote', () => {
  it('begins with the contacts, a text in the language of the customer, and what can go along', async () => {
    const quote = await readyQuote(mara, 'C-1001');
    const view = value(await seeQuoteSending(mara, quote.id));
    expect(view.contacts[0]).toMatchObject({
      name: quote.customer.contactName,
      address: quote.customer.contactEmail,
    });
    expect(view.sender).toEqual({ name: 'Mara Lindqvist, Harrowmoor Scale Works', address: mara.email });
    expect(view.texts.map(({ code }) => code)).toEqual(['mail-quotation', 'mail-reminder']);
    expect(view.texts[0]?.subject).toContain(quote.number);
    expect(view.texts[0]?.words).toContain('{link}');
    expect(view.texts[0]?.words).not.toContain('{quote');
    expect(view.documents.filter(({ usual }) => usual).map(({ wanted }) => wanted)).toEqual([
      { is: 'quotation', format: 'pdf' },
    ]);
    // It is signed by who sends it, whoever the quote is of.
    expect(view.texts[0]?.words).toContain('Mara Lindqvist');
    const by = value(await seeQuoteSending(joss, quote.id));
    expect(by.sender.address).toBe(joss.email);
    expect(by.texts[0]?.words).toContain(joss.name);
    expect(by.texts[0]?.words).not.toContain('Mara Lindqvist');
  });

  it('freezes the draft, goes once with what was made, and leaves it on the shelf byte for byte', async () => {
    const quote = await readyQuote(mara);
    const asked = await sendTo(quote, {
      documents: [
        { is: 'quotation', format: 'pdf' },
        { is: 'quotation', format: 'xml' },
      ],
    });
    expect(asked).toMatchObject({ state: 'making', wanted: 2, documents: [] });
    expect(value(await seeQuote(mara, quote.id)).revision.state).toBe('sent');
    await workAll();
    const sent = value(await seeMail(mara, asked.id));
    expect(sent).toMatchObject({ state: 'sent', server: 'Outbox', tries: 1, refused: [], problem: null });
    const raw = await rawOf(asked.id);
    expect(sent.hash).toBe(createHash('sha256').update(raw).digest('hex'));
    const read = await PostalMime.parse(raw, { attachmentEncoding: 'arraybuffer' });
    expect(read).toMatchObject({
      subject: 'Our quotation',
      messageId: `<${asked.id}@harrowmoor.example>`,
      from: { address: mara.email },
      to: [{ name: 'Ana Kestrel', address: 'ana@kestrel.example' }],
    });
    // What went is what lies on the shelf, and no other copy is made of it later.
    const enclosed = read.attachments.map(({ content }) => Buffer.from(content as ArrayBuffer));
    for (const [at, document] of sent.documents.entries()) {
      expect(enclosed[at]).toEqual(await contentOf(document.hash));
      expect(
        createHash('sha256')
          .update(enclosed[at] as Buffer)
          .digest('hex'),
      ).toBe(document.hash);
      expect(value(await openShelved(mara, document.id)).bytes).toEqual(enclosed[at]);
    }
    const again = await sendTo(value(await seeQuote(mara, quote.id)));
    await workAll();
    expect(value(await seeMail(mara, again.id)).documents[0]?.hash).toBe(sent.documents[0]?.hash);
    const seen = value(await seenMail(mara, asked.id));
    expect(seen.attachments.map(({ name }) => name)).toEqual([
      `${quote.number}-R1.pdf`,
      `${quote.number}-R1.xml`,
    ]);
    expect(Buffer.from(value(await messageFile(mara, asked.id)).bytes)).toEqual(raw);
  });

  it('is of one quotation, whoever makes it at the same moment', async () => {
    const quote = await readyQuote(mara);
    const sent = await sendTo(quote);
    const of = await connected().records.mails.findByPk(sent.id, { raw: true });
    const [revisionId, quoteId] = [of?.revisionId ?? '', of?.quoteId ?? ''];
    const asked = { quoteId, revisionId, buildId: null, customerId: null };
    const made = await Promise.all(Array.from({ length: 4 }, () => quotationOf(mara, asked, 'pdf')));
    const ids = new Set(made.map((each) => value(each).id));
    expect(ids.size).toBe(1);
    await workAll();
    expect(value(await seeMail(mara, sent.id)).documents.map(({ id }) => id)).toEqual([...ids]);
  });

  it('has the link of a share where it is meant, and no brace where there is none', async () => {
    const quote = await readyQuote(mara);
    await expect(sendTo(quote, { share: { until: '2099-01-01' } })).rejects.toThrow('share.far');
    const until = value(await seeQuoteSending(mara, quote.id)).until;
    const with1 = await sendTo(quote, { share: { until } });
    expect(with1.words).toMatch(/here it is\.\n\nhttps:\/\/scales\.example\/s\/[\w-]{43}\n\nMara$/);
    const without = await sendTo(value(await seeQuote(mara, quote.id)));
    expect(without.words).toBe('Dear Ana,\n\nhere it is.\n\nMara');
    await workAll();
    const seen = value(await seenMail(mara, with1.id));
    expect(seen.html).toMatch(/<a href="https:\/\/scales\.example\/s\//);
  });

  it('keeps what is typed as words, never as markup or as heads of the message', async () => {
    const quote = await readyQuote(mara);
    const words = 'Dear <b>Ana</b> & "co",\n\n<script>alert(1)</script>';
    const sent = await sendTo(quote, { words, subject: 'Ünïcode – <b>' });
    await workAll();
    const seen = value(await seenMail(mara, sent.id));
    expect(seen.subject).toBe('Ünïcode – <b>');
    expect(seen.text.trim()).toBe(words);
    expect(seen.html).not.toContain('<script>');
    expect(seen.html).toContain('&lt;script&gt;');
    const bad = (more: object) =>
      quoteMailInput.isValid({ version: 1, ...mail(), ...more }, { strict: true });
    const to = (address: string, name = '') => ({ recipients: [{ as: 'to', name, address }] });
    expect(await bad({})).toBe(true);
    for (const wrong of [
      { subject: 'One\r\nBcc: all@kestrel.example' },
      to('ana@kestrel.example\nBcc: x@y.example'),
      to('ana@kestrel.example', 'Ana\r\nBcc: x'),
      to('<ana@kestrel.example>'),
      to('ana@kestrel.example, ben@kestrel.example'),
      { recipients: [] },
      { recipients: [{ as: 'cc', name: '', address: 'ana@kestrel.example' }] },
      { recipients: [mail().recipients[0], { as: 'cc', name: '', address: 'ANA@kestrel.example' }] },
      { words: '   ' },
      { subject: '' },
      { documents: [{ is: 'quotation' }] },
    ])
      expect(await bad(wrong), JSON.stringify(wrong)).toBe(false);
  });

  it('is refused, and nothing is frozen, where something is in the way', async () => {
    const quote = await readyQuote(mara);
    const stale = { ...mail(), version: quote.version + 1 };
    expect(codes(await mailQuote(mara, quote.id, stale as never, base))).toEqual(['quote.staleOwn']);
    const other = await readyQuote(mara, 'C-1001', 'Other');
    const foreign = {
      ...mail({ documents: [{ is: 'specification', build: other.id }] }),
      version: quote.version,
    };
    expect(codes(await mailQuote(mara, quote.id, foreign as never, base))).toEqual(['mail.badDocument']);
    expect(value(await seeQuote(mara, quote.id)).revision.state).toBe('draft');
    const lost = value(
      await loseQuote(mara, other.id, { version: other.version, reason: 'price', note: '' }),
    );
    expect(codes(await mailQuote(mara, lost.id, { ...mail(), version: lost.version }, base))).toEqual([
      'mail.quoteLost',
    ]);
    expect(codes(await mailQuote(rhona, quote.id, { ...mail(), version: quote.version }, base))).toEqual([
      'quote.missing',
    ]);
  });

  it('of a customer without an address can go to whoever is typed', async () => {
    const quote = await readyQuote(mara);
    await connected().records.contacts.update({ email: '' }, { where: {} });
    await connected().sequelize.query(
      `update quote_revisions set customer = customer || '{"contactEmail": ""}' where quote_id = $1`,
      { bind: [quote.id] },
    );
    expect(value(await seeQuoteSending(mara, quote.id)).contacts).toEqual([]);
    expect((await sendTo(quote)).state).toBe('making');
  });
});

describe('a mail on its way', () => {
  it('waits while the server is down, for days, and goes when it is up', async () => {
    await workAll();
    expect(codes(await changeMailServer(mara, true))).toEqual(['refused.permission']);
    await setDown(true);
    const { id } = await sendTo(await readyQuote(mara));
    // A try an hour, as after a day.
    await workAll(30);
    expect(value(await seeMail(mara, id))).toMatchObject({
      state: 'waiting',
      tries: 30,
      problem: { code: 'mail.later' },
    });
    expect(value(await changeMailServer(ines, false))).toMatchObject({ ours: true, down: false });
    await workAll();
    expect(value(await seeMail(mara, id))).toMatchObject({ state: 'sent', tries: 31, problem: null });
  });

  it('that is refused says so on the Desk, and goes again when a person says so', async () => {
    const quote = await readyQuote(mara);
    const { id } = await sendTo(quote, {
      recipients: [{ as: 'to', name: '', address: 'ana@nowhere.invalid' }],
    });
    await workAll();
    expect(value(await seeMail(mara, id))).toMatchObject({
      state: 'refused',
      problem: { code: 'mail.refused' },
    });
    expect((await desk(mara)).undelivered[0]).toMatchObject({ id, state: 'refused' });
    expect(codes(await sendAgain(rhona, id))).toEqual(['mail.missing']);
    expect(value(await sendAgain(mara, id)).state).toBe('waiting');
    await workAll();
    expect(value(await seeMail(mara, id))).toMatchObject({ state: 'refused', tries: 2 });
    // Another mail about the same is the answer to it.
    await sendTo(value(await seeQuote(mara, quote.id)));
    await workAll();
    expect((await desk(mara)).undelivered.map((each) => each.id)).not.toContain(id);
  });

  it('that comes back is told with the address, once', async () => {
    const { id } = await sendTo(await readyQuote(mara));
    await workAll();
    for (let times = 0; times < 2; times++)
      value(await giveBack(mara, { mail: id, address: 'ana@kestrel.example' }));
    const back = value(await seeMail(mara, id));
    expect(back.returned).toEqual([{ address: 'ana@kestrel.example', words: '550 5.1.1 mailbox unknown' }]);
    expect((await desk(mara)).undelivered[0]).toMatchObject({ id, returned: ['ana@kestrel.example'] });
    expect(codes(await giveBack(mara, { mail: id, address: 'ben@kestrel.example' }))).toEqual(['mail.notTo']);
  });

  it('is sent once by two workers that have the same job at the same time', async () => {
    const ids = await Promise.all(
      Array.from({ length: 6 }, async () => (await sendTo(await readyQuote(mara))).id),
    );
    const workers = [promptWorker(), promptWorker(), promptWorker()];
    await Promise.all(
      workers.map(async (worker) => {
        while (await worker.runNext());
      }),
    );
    for (const id of ids) expect(value(await seeMail(mara, id))).toMatchObject({ state: 'sent', tries: 1 });
  });

  it('is seen by whoever sees the quote, and by no dealer of another', async () => {
    const { id } = await sendTo(await readyQuote(mara));
    expect((await seeMail(joss, id)).ok).toBe(true);
    expect(codes(await seeMail(rhona, id))).toEqual(['mail.missing']);
    expect((await listMails(rhona)).rows).toEqual([]);
    expect((await listMails(joss, { find: 'Our quotation' })).rows.map((row) => row.id)).toContain(id);
  });
});

describe('a mail about a build', () => {
  it('takes its sheet and drawings along, and leaves its quote as it is', async () => {
    const quote = await readyQuote(mara);
    const { id } = value(await beginBuild(mara, { quoteId: quote.id, modelId: 'ridgeback' }));
    const view = value(await seeBuildSending(mara, id));
    expect(view.documents.map(({ wanted }) => wanted.is)).toEqual(['specification', 'drawings']);
    const sent = value(
      await mailBuild(mara, id, mail({ documents: view.documents.map(({ wanted }) => wanted) }), base),
    );
    await workAll();
    const there = value(await seeMail(mara, sent.id));
    expect(there.state).toBe('sent');
    expect(there.documents.map(({ name }) => name.replace(/^.*-(?=\w+\.)/, ''))).toEqual([
      'specification.pdf',
      'drawings.zip',
    ]);
    expect(value(await seeQuote(mara, quote.id)).revision.state).toBe('draft');
  });
});
