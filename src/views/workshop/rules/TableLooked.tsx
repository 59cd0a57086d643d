import type { Rule } from '../../../core/model';
import { wordsOf, type Language } from '../../../core/modelling';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { useLooked } from './useLooked';
import css from './rules.module.css';

type Table = Extract<Rule, { kind: 'table' }>;

interface Props {
  draft: Draft;
  rule: Table;
  /** Brings a row of the table to the eye. */
  onRow: (row: number) => void;
  onSet: (rule: Rule) => void;
}

const mostShown = 6;

/** Which rows of the table say the same, what no row lets pass, and rows for what is missing. */
export function TableLooked({ draft, rule, onRow, onSet }: Props) {
  const { t, language } = useSpeech();
  const look = useLooked(draft, rule.id, draft.session.table);
  if (!look) return null;
  const { overlaps, holes, missing, more } = look;
  const words = wordsOf(draft.document, language as Language);
  const nameOf = (column: number, value: string): string => {
    const row = words.rowOf(rule.of[column] ?? '');
    return `${row?.name ?? rule.of[column] ?? ''}: ${row?.options.find(({ id }) => id === value)?.name ?? value}`;
  };
  return (
    <div className={css.looked} role="status">
      {overlaps.slice(0, mostShown).map(([one, other]) => (
        <p key={`${String(one)} ${String(other)}`} data-warn>
          {t('draft.look.overlap')}{' '}
          {[one, other].map((row) => (
            <button key={row} type="button" className={css.way} onClick={() => onRow(row)}>
              {row + 1}
            </button>
          ))}
        </p>
      ))}
      {holes.length > 0 && (
        <p data-warn>
          {t('draft.look.holes', {
            what: holes
              .slice(0, mostShown)
              .map(({ column, value }) => nameOf(column, value))
              .join(', '),
          })}
          {holes.length > mostShown && ' …'}
        </p>
      )}
      {missing.length > 0 && (
        <p>
          {t('draft.look.missing', { count: missing.length, more: more ? '+' : '' })}{' '}
          <Button
            look="plain"
            onClick={() => onSet({ ...rule, rows: [...rule.rows, ...missing.map((row) => [...row])] })}
          >
            {t('draft.look.fill')}
          </Button>
        </p>
      )}
    </div>
  );
}
