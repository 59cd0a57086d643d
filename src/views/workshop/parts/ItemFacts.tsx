/** What the catalogue tells of the items of a model, beside what the model has of it, and how it takes it over. */
import { useEffect, useMemo, useState } from 'react';
import type { DraftFacts } from '../../../contract';
import {
  differs,
  factsOf,
  forgetFact,
  takeFacts,
  type FactsOfModel,
  type ToldItem,
} from '../../../core/modelling';
import { number, own } from '../../../i18n';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { ask } from '../../api';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

/** What the catalogue tells, as the draft is stored. */
function useTold(draft: Draft, id: string): DraftFacts | null {
  const { saving, version } = draft;
  const [told, setTold] = useState<DraftFacts | null>(null);
  useEffect(() => {
    if (saving !== 'saved') return;
    void ask('GET /drafts/{id}/facts', { at: { id } }).then((answer) => {
      if (answer.ok) setTold(answer.value);
    });
  }, [id, saving, version]);
  return told;
}

/** A key that tells how much differs, and opens the facts. */
export function ItemFacts({ draft, id }: { draft: Draft; id: string }) {
  const { t } = useSpeech();
  const [open, setOpen] = useState(false);
  const told = useTold(draft, id);
  const { document } = draft;
  const facts = useMemo(() => {
    const items = new Map(
      Object.entries(told?.items ?? {}).map(([sku, { family, values }]): [string, ToldItem] => [
        sku,
        { properties: told?.families[family] ?? [], values },
      ]),
    );
    return factsOf(document, items);
  }, [document, told]);
  if (!told) return null;
  return (
    <div className={css.factsKey}>
      <Button onClick={() => setOpen(true)}>{t('draft.facts.open')}</Button>
      {facts.differing > 0 && (
        <span className={css.count}>{t('draft.facts.differ', { count: facts.differing })}</span>
      )}
      {open && <Facts draft={draft} facts={facts} told={told} onClose={() => setOpen(false)} />}
    </div>
  );
}

interface FactsProps {
  draft: Draft;
  facts: FactsOfModel;
  told: DraftFacts;
  onClose: () => void;
}

function Facts({ draft, facts, told, onClose }: FactsProps) {
  const { t, language } = useSpeech();
  const { session, document } = draft;
  const take = (wanted: ReadonlySet<string>): void => {
    const edit = takeFacts(document, facts, wanted);
    if (edit) session.edit(edit);
  };
  const declared = facts.columns.filter((column) => column.declared).map(({ id }) => id);
  const turn = (id: string, on: boolean): void => {
    if (on) return take(new Set([id]));
    session.edit(forgetFact(document, id));
  };
  const shown = (id: string, value: string | null): string => {
    if (value === null) return '';
    const type = facts.columns.find((column) => column.id === id)?.type ?? 'number';
    if (type === 'yesno') return t(value === 'true' ? 'draft.facts.yes' : 'draft.facts.no');
    return type === 'number' ? number(value, language) : value;
  };
  return (
    <Dialog title={t('draft.facts.title')} closeText={t('frame.close')} open onClose={onClose}>
      <p className={css.quiet}>{t('draft.facts.hint')}</p>
      {facts.columns.length === 0 ? (
        <p>{t('draft.facts.none')}</p>
      ) : (
        <div className={css.facts}>
          <table>
            <thead>
              <tr>
                <th scope="col">{t('draft.rows.item')}</th>
                {facts.columns.map(({ id, name, unit, declared: on }) => (
                  <th key={id} scope="col">
                    <label>
                      <input
                        type="checkbox"
                        checked={on}
                        onChange={({ target }) => turn(id, target.checked)}
                      />
                      {own(name, language)}
                      {unit !== '' && ` ${unit}`}
                    </label>
                    <code>{id}</code>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {facts.rows.map(({ sku, facts: of }) => (
                <tr key={sku}>
                  <th scope="row">
                    <code>{sku}</code> {own(told.items[sku]?.name ?? {}, language)}
                  </th>
                  {facts.columns.map(({ id, declared: on }) => {
                    const fact = of[id] ?? { here: null, there: null };
                    const other = on && differs(fact);
                    return (
                      <td key={id} data-other={other || undefined}>
                        {shown(id, on ? (fact.here ?? (other ? null : fact.there)) : fact.there)}
                        {other && <strong> → {shown(id, fact.there)}</strong>}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {facts.clashing.length > 0 && (
        <p role="note">
          {t('draft.facts.clash', {
            what: facts.clashing.map(({ id, sku }) => `${id} (${sku})`).join(', '),
          })}
        </p>
      )}
      <DialogFoot>
        <Button onClick={onClose}>{t('frame.close')}</Button>
        <Button look="main" disabled={facts.differing === 0} onClick={() => take(new Set(declared))}>
          {t('draft.facts.take')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
