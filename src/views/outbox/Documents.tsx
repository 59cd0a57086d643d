import type { OfferedDocument } from '../../contract';
import { own } from '../../i18n';
import { useSpeech } from '../speech';
import css from './send.module.css';

/** Names a document that is wanted. */
export const wantedKey = (wanted: OfferedDocument['wanted']): string => Object.values(wanted).join(' ');

interface Props {
  offered: readonly OfferedDocument[];
  chosen: ReadonlySet<string>;
  onChange: (chosen: Set<string>) => void;
}

const groupOf = ({ wanted: { is }, attached }: OfferedDocument) =>
  attached ? 'attached' : is === 'drawings' ? 'specification' : is;

/** What goes along: the quotation, sheets and drawings of each build, data sheets of items. */
export function Documents({ offered, chosen, onChange }: Props) {
  const { t } = useSpeech();
  const toggle = (key: string, on: boolean): void => {
    const next = new Set(chosen);
    if (on) next.add(key);
    else next.delete(key);
    onChange(next);
  };
  const groups = (['quotation', 'specification', 'file', 'attached'] as const).flatMap((group) => {
    const rows = offered.filter((row) => groupOf(row) === group);
    return rows.length === 0 ? [] : [{ group, rows }];
  });
  return (
    <fieldset className={css.documents}>
      <legend>{t('mail.documents')}</legend>
      {groups.map(({ group, rows }) => (
        <div key={group} role="group" aria-label={t(`mail.group.${group}`)}>
          <h3>{t(`mail.group.${group}`)}</h3>
          <div className={css[group]}>
            {rows.map((row) => {
              const key = wantedKey(row.wanted);
              return (
                <label key={key} className={css.tick}>
                  <input
                    type="checkbox"
                    checked={chosen.has(key)}
                    onChange={(event) => toggle(key, event.target.checked)}
                  />
                  <Name row={row} />
                </label>
              );
            })}
          </div>
        </div>
      ))}
    </fieldset>
  );
}

/** What a document is called. */
export function Name({ row: { wanted, name, line } }: { row: OfferedDocument }) {
  const { t, language } = useSpeech();
  if (wanted.is === 'quotation') return <>{t(`mail.format.${wanted.format as 'pdf'}`)}</>;
  if (wanted.is === 'file') return <>{typeof name === 'string' ? name : own(name, language)}</>;
  const what = t(`mail.made.${wanted.is}`);
  const model = typeof name === 'string' ? name : own(name, language);
  return <>{line === undefined ? `${what}, ${model}` : t('mail.madeOf', { what, line, model })}</>;
}
