import { useMemo } from 'react';
import type { FileTables } from '../../../contract';
import type { Rule } from '../../../core/model';
import { edited, ruleOf, type Edit } from '../../../core/modelling';
import { sentence } from '../../../i18n';
import { Button, Dialog, DialogFoot, say } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { freeRuleId } from './rule-edit';
import css from './rules.module.css';

interface Props {
  draft: Draft;
  file: FileTables;
  onClose: () => void;
}

/** The decision tables of a file: which become rules, and everything that could not be taken over, with why. */
export function TablesPreview({ draft, file, onClose }: Props) {
  const { t, language } = useSpeech();
  const { session } = draft;
  const read = useMemo(() => {
    let { document } = session.seen();
    const found: { name: string; rule: Rule | null; notTaken: FileTables['notTaken'] }[] = [];
    for (const table of file.tables) {
      const { rule, notTaken } = ruleOf(table, document, freeRuleId(document));
      found.push({ name: table.name, rule, notTaken: [...notTaken] });
      const added = rule && edited(document, { do: 'add', to: ['rules'], part: { ...rule } });
      if (added?.ok) ({ document } = added);
    }
    return found;
  }, [file, session]);
  const rules = read.flatMap(({ rule }) => rule ?? []);
  const take = (): void => {
    const edits = rules.map((rule): Edit => ({ do: 'add', to: ['rules'], part: { ...rule } }));
    const problem = session.edit({ do: 'several', edits });
    if (problem) say(sentence(language, problem.code, { ...problem.params }), true);
    else {
      say(t('draft.exchange.taken', { count: rules.length }));
      onClose();
    }
  };
  return (
    <Dialog title={t('draft.exchange.tables')} closeText={t('frame.close')} open onClose={onClose}>
      <ul className={css.tables} aria-label={t('draft.exchange.tables')}>
        {read.map(({ name, rule, notTaken }, at) => (
          <li key={at}>
            <b>{name}</b>{' '}
            {rule ? t('draft.exchange.takenTable', { id: rule.id }) : t('draft.exchange.leftTable')}
            <NotTaken all={notTaken} />
          </li>
        ))}
        {file.notTaken.map(({ table, code, params }, at) => (
          <li key={`other ${String(at)}`}>
            <b>{table}</b> {t('draft.exchange.leftTable')}: {sentence(language, code, { ...params })}
          </li>
        ))}
      </ul>
      <DialogFoot>
        <Button onClick={onClose}>{t('draft.paste.leave')}</Button>
        <Button look="main" disabled={rules.length === 0} onClick={take}>
          {t('draft.exchange.takeTables', { count: rules.length })}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

function NotTaken({ all }: { all: FileTables['notTaken'] }) {
  const { language } = useSpeech();
  return (
    <ul>
      {all.map(({ code, params }, at) => (
        <li key={at}>{sentence(language, code, { ...params })}</li>
      ))}
    </ul>
  );
}
