import { useState } from 'react';
import { ChevronDown, ChevronUp } from 'lucide-react';
import type { Difference } from '../../core/engine';
import type { BenchPicture, BenchView } from '../../core/quoting';
import { number, own } from '../../i18n';
import { Button, Tabs, classes } from '../../ui';
import { useSpeech } from '../speech';
import css from './bench.module.css';
import type { Words } from './words';

type Tab = 'parts' | 'operations' | 'changed' | 'notes';

/** The strip at the foot: what the build is made of and how, what moved, what to know. */
export function Strip({ picture, moved, view, words }: { picture: BenchPicture; moved: readonly Difference[]; view: BenchView; words: Words }) {
  const { t, language } = useSpeech();
  const [tab, setTab] = useState<Tab>('parts');
  const [open, setOpen] = useState(true);
  const { making, state } = picture;
  const counts: Record<Tab, number> = { parts: making.materials.length, operations: making.operations.length, changed: moved.length, notes: state.messages.length };
  const tabs = (['parts', 'operations', 'changed', 'notes'] as const).map((id) => ({ id, text: `${t(`bench.${id}`)} ${String(counts[id])}` }));
  return (
    <section className={classes(css.strip, !open && css.stripClosed)} aria-label={t('bench.parts')}>
      <div className={css.stripHead}>
        <Tabs label={t('bench.parts')} tabs={tabs} chosen={tab} onChoose={(id) => { setTab(id); setOpen(true); }} panel="strip-panel" />
        <Button look="plain" aria-label={t('bench.close')} aria-expanded={open} onClick={() => setOpen(!open)}>{open ? <ChevronDown size={15} aria-hidden /> : <ChevronUp size={15} aria-hidden />}</Button>
      </div>
      <div id="strip-panel" role="tabpanel" aria-label={t(`bench.${tab}`)} tabIndex={0} className={css.stripBody}>
        {open && tab === 'parts' && (
          <table className={css.table}>
            <thead><tr><th scope="col">{t('bench.item')}</th><th scope="col">{t('bench.name')}</th><th scope="col" className={css.figure}>{t('bench.cut')}</th><th scope="col" className={css.figure}>{t('bench.quantity')}</th></tr></thead>
            <tbody>
              {making.materials.map((row) => (
                <tr key={row.row}><td className={css.code}>{row.item}</td><td>{own(view.itemNames[row.item], language)}</td><td className={css.figure}>{row.cut ? `${number(row.cut, language, 3)} m` : ''}</td><td className={css.figure}>{number(row.quantity, language, 2)}</td></tr>
              ))}
            </tbody>
          </table>
        )}
        {open && tab === 'operations' && (
          <table className={css.table}>
            <thead><tr><th scope="col">{t('bench.name')}</th><th scope="col">{t('bench.centre')}</th><th scope="col">{t('bench.instruction')}</th><th scope="col" className={css.figure}>{t('bench.setUp')}</th><th scope="col" className={css.figure}>{t('bench.run')}</th></tr></thead>
            <tbody>
              {making.operations.map((row) => (
                <tr key={row.row}><td>{own(row.name, language)}</td><td className={css.code}>{row.centre}</td><td>{own(row.text, language)}</td><td className={css.figure}>{number(row.setUp, language, 2)}</td><td className={css.figure}>{number(row.run, language, 2)}</td></tr>
              ))}
            </tbody>
          </table>
        )}
        {open && tab === 'changed' && (moved.length === 0 ? <p className={css.note}>{t('bench.nothingChanged')}</p> : (
          <table className={css.table}>
            <tbody>
              {moved.map((each) => (
                <tr key={each.row}><td>{words.row(each.row)}</td><td>{each.after === undefined ? t('bench.hidden') : words.value(each.row, each.after)}</td><td className={css.quiet}>{t('bench.was')} {each.before === undefined ? t('bench.open') : words.value(each.row, each.before)}</td><td className={css.source}>{t(`source.${each.source}`)}</td></tr>
              ))}
            </tbody>
          </table>
        ))}
        {open && tab === 'notes' && (state.messages.length === 0 ? <p className={css.note}>{t('bench.noNotes')}</p> : (
          <ul>{state.messages.map((message) => <li key={message.rule} className={css.note}><span className={message.severity === 'warning' ? css.warning : css.quiet}>{t(`severity.${message.severity}`)}</span>{own(message.text, language)}</li>)}</ul>
        ))}
      </div>
    </section>
  );
}
