/** What could stand in a formula, in the words of the reader. */
import { foundBy } from '../../../core/finding';
import { writeUnit, type FeelType, type FormulaProposal, type Proposals } from '../../../core/formula';
import type { Translate } from '../../../i18n';
import type { CodeProposal, CodeProposals } from '../../../ui/code-field';

/** What a row is called, or one of its options. */
export type NameOf = (id: string, option?: string) => string | undefined;

/** A type in words: "number, m". */
export function typeText(type: FeelType, t: Translate): string {
  if (type.is === 'number')
    return type.unit === 'any' || type.unit.size === 0
      ? t('formula.type.number')
      : `${t('formula.type.number')}, ${writeUnit(type.unit)}`;
  if (type.is === 'list') return t('formula.type.list', { of: typeText(type.item, t) });
  return t(`formula.type.${type.is}`);
}

/** What is found by what is written already, that which is called so first. */
export function proposed(
  { from, to, proposals }: Proposals,
  source: string,
  at: number,
  nameOf: NameOf,
  t: Translate,
): CodeProposals {
  const inText = source[from - 1] === '"';
  const all = proposals.map((each) => ({ each, name: nameIn(each, nameOf) }));
  const written = source.slice(from, at);
  const found = written === '' ? all : foundBy(all, written, ({ each, name }) => [each.text, name ?? '']);
  return {
    from,
    to,
    proposals: found.slice(0, mostShown).map(({ each, name }) => shown(each, name, inText, source[to], t)),
  };
}

const mostShown = 60;

const nameIn = (proposal: FormulaProposal, nameOf: NameOf): string | undefined =>
  proposal.is === 'option'
    ? nameOf(proposal.of, proposal.text)
    : proposal.is === 'name'
      ? nameOf(proposal.text)
      : undefined;

function shown(
  proposal: FormulaProposal,
  name: string | undefined,
  inText: boolean,
  behind: string | undefined,
  t: Translate,
): CodeProposal {
  const { text } = proposal;
  const called = name === undefined || name === text ? {} : { name };
  switch (proposal.is) {
    case 'option':
      return inText
        ? {
            text: behind === '"' ? text : `${text}"`,
            ...called,
            detail: text,
            ...(behind === '"' ? { go: 1 } : {}),
          }
        : { text: `"${text}"`, ...called, detail: text };
    case 'name':
    case 'field':
      return {
        text,
        ...called,
        detail: name === undefined ? typeText(proposal.type, t) : `${text} · ${typeText(proposal.type, t)}`,
      };
    case 'function':
      return {
        text: behind === '(' ? text : `${text}()`,
        name: text,
        detail: t('formula.values', { count: countOf(proposal) }),
        ...(behind === '(' ? { go: 1 } : { go: -1 }),
      };
    case 'word':
      return { text, detail: t('formula.word') };
  }
}

const countOf = ({ least, most }: Extract<FormulaProposal, { is: 'function' }>): string =>
  least === most ? String(least) : most > 100 ? `${String(least)} …` : `${String(least)} – ${String(most)}`;
