/**
 * Texts and templates of the house. A version is never changed but followed by another; what was sent keeps to those
 * that were there on its day.
 */
import { QueryTypes } from 'sequelize';
import type {
  PaperHouseView,
  PaperTemplate,
  PaperTemplateInput,
  PaperText,
  PaperTextInput,
} from '../../contract';
import {
  conditionProblems,
  richProblems,
  type RichText,
  type TemplateContent,
  type TextContent,
} from '../../core/paper';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { endUse, use } from '../files/files';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { inTransaction, record } from '../kernel/unit-of-work';
import { listQuotes } from '../quotes/quote-list';
import { housePart } from '../settings/house';

type Of = 'texts' | 'templates';
interface Version<C> {
  code: string;
  version: number;
  content: C;
}

/** Those in force at a moment, by their codes; null for now. */
async function versionsAt<C>(of: Of, at: Date | null): Promise<Version<C>[]> {
  const rows = await connected().sequelize.query<Version<C> & { gone: boolean }>(
    `select distinct on (code) code, version, content, gone from paper_${of}
     where $1::timestamptz is null or made_at <= $1::timestamptz order by code, version desc`,
    { bind: [at], type: QueryTypes.SELECT },
  );
  return rows.filter(({ gone }) => !gone).map(({ code, version, content }) => ({ code, version, content }));
}

/** Texts in force at a moment. */
export const textsAt = async (at: Date | null): Promise<PaperText[]> =>
  (await versionsAt<TextContent>('texts', at)).map(({ code, version, content }) => ({
    code,
    version,
    ...content,
  }));

/** Templates in force at a moment. */
export const templatesAt = (at: Date | null): Promise<PaperTemplate[]> =>
  versionsAt<TemplateContent>('templates', at);

/** The texts in a language, by their codes. */
export const textsIn = (texts: readonly PaperText[], language: string): Record<string, RichText> =>
  Object.fromEntries(
    texts.flatMap(({ code, words }) => {
      const text = words[language === 'de' ? 'de' : 'en'] ?? Object.values(words).find(Boolean);
      return text ? [[code, text] as const] : [];
    }),
  );

/** All that whoever keeps them sees. */
export async function seePaperHouse(actor: Actor): Promise<PaperHouseView> {
  const { markets } = await housePart('markets');
  const dealers = await connected().records.customers.findAll({
    where: { class: 'dealer' },
    attributes: ['id', 'name'],
    order: [['name', 'ASC']],
    raw: true,
  });
  const { rows } = await listQuotes(actor);
  return {
    texts: await textsAt(null),
    templates: await templatesAt(null),
    markets: markets.map(({ code, name }) => ({ code, name })),
    dealers: dealers.map(({ id, name }) => ({ id, name })),
    quotes: rows.slice(0, 30).map(({ id, number, title, customer }) => ({ id, number, title, customer })),
  };
}

/** Follows a text by another version, or makes a new one. */
export const keepText = (
  actor: Actor,
  code: string,
  { version, content }: PaperTextInput,
): Promise<Result<PaperHouseView>> =>
  inTransaction(async () => {
    const wrong = Object.entries(content.words).flatMap(([language, words]) =>
      richProblems(words, content.place).map(({ problem }): Failure => ({
        code: problem.code,
        params: { ...problem.params },
        field: `words.${language}`,
      })),
    );
    if (wrong.length > 0) return fail('invalid', ...wrong);
    return keep(actor, 'texts', code, version, content);
  });

/** Takes a text away; not while a template has it. */
export const dropText = (actor: Actor, code: string, version: number): Promise<Result<PaperHouseView>> =>
  inTransaction(async () => {
    const users = (await templatesAt(null)).filter(
      ({ content }) => content.lines.under === code || content.blocks.some(({ text }) => text === code),
    );
    const [first] = users;
    if (first)
      return fail('conflict', {
        code: 'paper.textUsed',
        params: { template: Object.values(first.content.name)[0] ?? first.code },
      });
    return drop(actor, 'texts', code, version);
  });

/** Follows a template by another version, or makes a new one. */
export const keepTemplate = (
  actor: Actor,
  code: string,
  { version, content }: PaperTemplateInput,
): Promise<Result<PaperHouseView>> =>
  inTransaction(async () => {
    const texts = new Set((await textsAt(null)).map((text) => text.code));
    const wrong = content.blocks.flatMap(({ key, text, when }): Failure[] => [
      ...(text === '' || texts.has(text)
        ? []
        : [{ code: 'paper.noText', params: { text }, field: `blocks.${key}` }]),
      ...conditionProblems(when).map((problem) => ({
        code: problem.code,
        params: { ...problem.params },
        field: `blocks.${key}.when`,
      })),
    ]);
    if (wrong.length > 0) return fail('invalid', ...wrong);
    const before = (await templatesAt(null)).find((each) => each.code === code)?.content.mark ?? null;
    if (content.mark !== null && content.mark !== before) {
      const used = await use(actor, content.mark, 'paper', code);
      if (!used.ok) return used;
    }
    await endUse('paper', code, content.mark === null ? [] : [content.mark]);
    return keep(actor, 'templates', code, version, content);
  });

/** Takes a template away; documents that began from it stay as they are. */
export const dropTemplate = (actor: Actor, code: string, version: number): Promise<Result<PaperHouseView>> =>
  inTransaction(() => drop(actor, 'templates', code, version));

/** The newest version, held against others. */
async function newest(of: Of, code: string): Promise<{ version: number; gone: boolean } | null> {
  await connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', {
    bind: [`paper ${of} ${code}`],
  });
  const [row] = await connected().sequelize.query<{ version: number; gone: boolean }>(
    `select version, gone from paper_${of} where code = $1 order by version desc limit 1`,
    { bind: [code], type: QueryTypes.SELECT },
  );
  return row ?? null;
}

async function keep(
  actor: Actor,
  of: Of,
  code: string,
  version: number,
  content: TextContent | TemplateContent,
): Promise<Result<PaperHouseView>> {
  if (!/^[a-zA-Z][a-zA-Z0-9-]{0,39}$/.test(code)) return fail('invalid', { code: 'paper.badCode' });
  const before = await newest(of, code);
  const there = before === null || before.gone ? 0 : before.version;
  if (there !== version) return fail('conflict', { code: 'paper.changed' });
  await append(of, {
    code,
    version: (before?.version ?? 0) + 1,
    content,
    gone: false,
    madeBy: actor.id,
  });
  await record(actor, `paper.${of}.kept`, code, { version: (before?.version ?? 0) + 1 });
  return done(await seePaperHouse(actor));
}

async function drop(actor: Actor, of: Of, code: string, version: number): Promise<Result<PaperHouseView>> {
  const before = await newest(of, code);
  if (!before || before.gone) return fail('missing', { code: 'paper.missing' });
  if (before.version !== version) return fail('conflict', { code: 'paper.changed' });
  const [row] = await versionsAt<TextContent | TemplateContent>(of, null).then((all) =>
    all.filter((each) => each.code === code),
  );
  if (!row) return fail('missing', { code: 'paper.missing' });
  await append(of, { code, version: version + 1, content: row.content, gone: true, madeBy: actor.id });
  await record(actor, `paper.${of}.dropped`, code, {});
  return done(await seePaperHouse(actor));
}

interface Appended {
  code: string;
  version: number;
  content: TextContent | TemplateContent;
  gone: boolean;
  madeBy: string;
}

async function append(of: Of, { code, version, content, gone, madeBy }: Appended): Promise<void> {
  const { paperTexts, paperTemplates } = connected().records;
  const row = { code, version, gone, madeBy };
  if (of === 'texts') await paperTexts.create({ ...row, content: content as TextContent });
  else await paperTemplates.create({ ...row, content: content as TemplateContent });
}
