import { Plus, X } from 'lucide-react';
import type { ItemView } from '../../contract';
import type { Bar } from '../../core/items';
import { Button, Field, Select } from '../../ui';
import { useSpeech } from '../speech';
import type { ItemDraft } from './useItem';
import css from './item.module.css';

/** To whom and by whom it is not sold, each with the reason that is told. */
export function Bars({ draft, view }: { draft: ItemDraft; view: ItemView }) {
  const { t } = useSpeech();
  const { item, change, errorAt } = draft;
  const set = (at: number, more: Partial<Bar>): void =>
    change({ bars: item.bars.map((bar, index) => (index === at ? { ...bar, ...more } : bar)) });
  const choices = {
    class: view.classes.map((value) => ({ value, text: t(`items.class.${value}` as 'items.class.direct') })),
    region: view.regions.map((value) => ({ value, text: value })),
    role: view.roles.map((value) => ({ value, text: t(`role.${value}` as 'role.engineer') })),
  };
  return (
    <>
      {item.bars.length === 0 && <p className={css.quiet}>{t('items.noBars')}</p>}
      {item.bars.map((bar, at) => (
        <div key={at} className={css.bar} role="group" aria-label={t('items.barNumber', { number: at + 1 })}>
          {(['class', 'region', 'role'] as const).map((part) => (
            <Select
              key={part}
              label={t(`items.bar.${part}`)}
              value={bar[part] ?? ''}
              options={[{ value: '', text: t('items.any') }, ...choices[part]]}
              onChange={(event) => set(at, { [part]: event.target.value || null })}
            />
          ))}
          <Button
            look="plain"
            aria-label={t('items.dropBar', { number: at + 1 })}
            onClick={() => change({ bars: item.bars.filter((_, index) => index !== at) })}
          >
            <X size={14} aria-hidden />
          </Button>
          {(['en', 'de'] as const).map((language) => (
            <Field
              key={language}
              label={t('items.reasonIn', { language: t(`items.languages.${language}`) })}
              value={bar.reason[language] ?? ''}
              maxLength={300}
              error={language === 'en' ? errorAt(`bars.${String(at)}`) : undefined}
              onChange={(event) => set(at, { reason: { ...bar.reason, [language]: event.target.value } })}
            />
          ))}
        </div>
      ))}
      <div className={css.wide}>
        <Button
          onClick={() =>
            change({ bars: [...item.bars, { class: null, region: null, role: null, reason: {} }] })
          }
        >
          <Plus size={14} aria-hidden />
          {t('items.addBar')}
        </Button>
      </div>
    </>
  );
}
