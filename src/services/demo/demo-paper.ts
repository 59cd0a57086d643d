/** Texts and templates of the demo. */
import type { RichText, TemplateContent, TextContent } from '../../core/paper';
import { connected } from '../../data';

/** A paragraph, or the items of a list. */
type Words = (string | string[])[];

interface PaperFile {
  texts: (Omit<TextContent, 'words'> & { code: string; words: Record<string, Words> })[];
  templates: (TemplateContent & { code: string })[];
}

const rich = (words: Words): RichText =>
  words.map((part) =>
    typeof part === 'string'
      ? { is: 'paragraph', spans: [{ text: part }] }
      : { is: 'list', ordered: false, items: part.map((text) => [{ text }]) },
  );

/** Long ago, so that what was sent before the demo began has them too. */
const madeAt = new Date('2000-01-01T00:00:00Z');

/** Loads them. */
export async function loadPaper(read: <T>(name: string) => Promise<T>): Promise<void> {
  const { texts, templates } = await read<PaperFile>('paper.json');
  const { paperTexts, paperTemplates } = connected().records;
  const made = { version: 1, gone: false, madeBy: null, madeAt };
  await paperTexts.bulkCreate(
    texts.map(({ code, name, place, words, subject }) => ({
      ...made,
      code,
      content: {
        name,
        place,
        ...(subject ? { subject } : {}),
        words: Object.fromEntries(Object.entries(words).map(([language, each]) => [language, rich(each)])),
      },
    })),
  );
  await paperTemplates.bulkCreate(templates.map(({ code, ...content }) => ({ ...made, code, content })));
}
