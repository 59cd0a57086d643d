import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { Page } from '../../contract';
import { number } from '../../i18n';
import { Button } from '../../ui';
import { useSpeech } from '../speech';
import css from './pager.module.css';

/** Where one is in a list that has more than a page. */
export function Pager({
  page: { page, size, count },
  onGo,
}: {
  page: Omit<Page<unknown>, 'rows'>;
  onGo: (page: number) => void;
}) {
  const { t, language } = useSpeech();
  if (count <= size) return null;
  const written = (value: number) => number(String(value), language);
  const last = Math.ceil(count / size) - 1;
  return (
    <nav className={css.pager} aria-label={t('pager.label')}>
      <Button look="plain" disabled={page === 0} onClick={() => onGo(page - 1)}>
        <ChevronLeft size={14} aria-hidden />
        {t('pager.before')}
      </Button>
      <span role="status">
        {t('pager.of', {
          from: written(page * size + 1),
          to: written(Math.min(count, (page + 1) * size)),
          count: written(count),
        })}
      </span>
      <Button look="plain" disabled={page >= last} onClick={() => onGo(page + 1)}>
        {t('pager.after')}
        <ChevronRight size={14} aria-hidden />
      </Button>
    </nav>
  );
}
