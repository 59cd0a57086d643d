import { useState } from 'react';
import type { FreshLine, Freshening, QuoteView } from '../../../contract';
import { date, money, own } from '../../../i18n';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { ask, sentences } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import { useSpeech } from '../../speech';
import css from './compare.module.css';

interface Props {
  open: boolean;
  view: QuoteView;
  /** Takes lines over; gives the sentence of a refusal. */
  onTake: (lines: readonly string[]) => Promise<string | null>;
  onClose: () => void;
}

/** Of what is seen: the lines left out, and why it was refused. */
interface Said {
  of: Freshening | null;
  left: ReadonlySet<string>;
  refused: string | null;
}

/** What today's prices, agreements and models would change, line by line, before any of it does. */
export function FreshenDialog({ open, view, onTake, onClose }: Props) {
  const { t } = useSpeech();
  const { answer } = useAnswer<Freshening>(open ? [view.id, view.version].join() : null, () =>
    ask('GET /quotes/{id}/freshening', { at: { id: view.id } }),
  );
  const seen = answer?.ok ? answer.value : null;
  // What was left out, or refused, was so of what was seen then.
  const [said, setSaid] = useState<Said>({ of: null, left: new Set(), refused: null });
  const { left, refused } = said.of === seen ? said : { left: new Set<string>(), refused: null };
  const wrong = answer && !answer.ok ? sentences(answer.failures, t('request.failed')) : refused;
  const differing = seen?.lines.filter((line) => line.differs) ?? [];
  const taken = differing.filter((line) => !left.has(line.id));
  const go = async () => {
    // Lines that nothing would change go along: they stand on today's prices then, and say so.
    const refusal = await onTake(
      [...taken, ...(seen?.lines.filter((line) => !line.differs) ?? [])].map((line) => line.id),
    );
    if (refusal === null) onClose();
    else setSaid({ of: seen, left, refused: refusal });
  };
  const toggle = (id: string) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setSaid({ of: seen, left: next, refused });
  };
  return (
    <Dialog title={t('fresh.title')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <div className={css.compare} aria-busy={!seen && !wrong}>
        <p className={css.quiet}>{t('fresh.hint')}</p>
        {!seen && !wrong && <p role="status">{t('fresh.working', { count: view.lines.length })}</p>}
        {seen && differing.length === 0 && <p role="status">{t('fresh.nothing')}</p>}
        {seen && differing.length > 0 && (
          <Changes view={view} seen={seen} lines={differing} left={left} onToggle={toggle} />
        )}
        {wrong && (
          <p className={css.wrong} role="alert">
            {wrong}
          </p>
        )}
      </div>
      <DialogFoot>
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        <Button look="main" disabled={!seen || taken.length === 0} onClick={() => void go()}>
          {t('fresh.go', { count: taken.length })}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

/** The lines that would be others, each to be left out, and what the quote would come to. */
function Changes({
  view,
  seen,
  lines,
  left,
  onToggle,
}: {
  view: QuoteView;
  seen: Freshening;
  lines: readonly FreshLine[];
  left: ReadonlySet<string>;
  onToggle: (line: string) => void;
}) {
  const { t, language } = useSpeech();
  const amount = (value: string) => money(value, language, view.decimals);
  return (
    <div className={css.scroll} tabIndex={0} role="region" aria-label={t('fresh.title')}>
      <table className={css.table}>
        <thead>
          <tr>
            <td />
            <td />
            <td />
            <th scope="col" className={css.at}>
              {t('fresh.now')}
            </th>
            <th scope="col" className={css.at}>
              {t('fresh.today')}
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.id}>
              <td>
                <input
                  type="checkbox"
                  aria-label={t('fresh.line', { line: line.position })}
                  checked={!left.has(line.id)}
                  onChange={() => onToggle(line.id)}
                />
              </td>
              <td className={css.at}>{line.position}</td>
              <td>
                {own(line.name, language)}
                <Told line={line} />
              </td>
              <td className={css.at}>{amount(line.before)}</td>
              <td className={css.at}>{amount(line.after)}</td>
            </tr>
          ))}
          <tr className={css.sum}>
            <td />
            <td />
            <th scope="row">{t('fresh.net')}</th>
            <td className={css.at}>{amount(seen.net.before)}</td>
            <td className={css.at}>{left.size === 0 ? amount(seen.net.after) : ''}</td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}

/** Why a line would be another. */
function Told({ line }: { line: FreshLine }) {
  const { t, language } = useSpeech();
  const text = (texts: Record<string, string> | undefined) =>
    texts ? own(texts, language) : t('revision.nothing');
  return (
    <span className={css.under}>
      {t('fresh.since', { date: date(line.pricedOn, language) })}
      {line.version && ` · ${t('fresh.version', line.version)}`}
      {line.choices.map(({ row, name, before, after }) => (
        <span key={row} className={css.choice}>
          {own(name, language)}: {text(before)} → {text(after)}
        </span>
      ))}
      {line.dropped.length > 0 && (
        <span className={css.wrong}>{t('fresh.dropped', { rows: line.dropped.join(', ') })}</span>
      )}
      {line.problems.map((problem) => (
        <span key={problem.code} className={css.wrong}>
          {t(problem.code, problem.params)}
        </span>
      ))}
    </span>
  );
}
