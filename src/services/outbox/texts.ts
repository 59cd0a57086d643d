/** Texts that a mail begins with: those of the house for mails, filled for the quote, in the customer's language. */
import { wordsFilled as filled, richWords, type PaperGiven, type RichText } from '../../core/paper';
import type { SendView } from '../../contract';
import { translator } from '../../i18n';
import { paperWords } from '../../i18n/paper-words';
import type { Actor } from '../access/actor';
import { seeGiven } from '../paper/composing';
import { textsAt } from '../paper/house-texts';
import type { Subject } from './about';

/** As plain text: paragraphs apart, lists with a dash. */
const plain = (rich: RichText): string =>
  rich
    .map((part) =>
      part.is === 'paragraph'
        ? richWords([part])
        : part.items.map((item) => `- ${item.map(({ text }) => text).join('')}`).join('\n'),
    )
    .join('\n\n');

/** Those of the house, the usual one of ours where it has none. */
export async function usualTexts(actor: Actor, subject: Subject): Promise<SendView['texts']> {
  const { quote, build, revision, language } = subject;
  const seen = quote && revision ? await seeGiven(actor, quote.id, revision.number) : null;
  const given = seen?.ok ? seen.value : null;
  // Signed by who sends it, whoever the quote is of.
  const own = given
    ? await houseTexts({ ...given, owner: { name: actor.name, email: actor.email } }, language)
    : [];
  return own.length > 0 ? own : [ours(actor, subject, given, build?.outcome.partNumber ?? '')];
}

async function houseTexts(given: PaperGiven, language: string): Promise<SendView['texts']> {
  const of = language.startsWith('de') ? 'de' : 'en';
  const filling = { given, line: null, words: paperWords(of, given.decimals) };
  return (await textsAt(null)).flatMap(({ code, name, place, words, subject }) => {
    const rich = words[of] ?? Object.values(words).find(Boolean);
    if (place !== 'mail' || !rich) return [];
    return [
      {
        code,
        name,
        subject: filled(subject?.[of] ?? '', filling)
          .replace(/\s+/g, ' ')
          .trim(),
        words: filled(plain(rich), filling),
      },
    ];
  });
}

function ours(
  actor: Actor,
  { quote, language, contacts }: Subject,
  given: PaperGiven | null,
  partNumber: string,
): SendView['texts'][number] {
  const t = translator(language);
  const told = {
    number: given?.number ?? partNumber,
    title: given?.title ?? '',
    name: contacts[0]?.name ?? '',
    by: actor.name,
    house: given?.house.name ?? '',
  };
  const of = quote ? 'quote' : 'build';
  return {
    code: '',
    name: { en: translator('en')('mail.ours'), de: translator('de')('mail.ours') },
    subject: t(`mail.usual.${of}.subject`, told).trim(),
    words: t(`mail.usual.${of}.words`, told),
  };
}
