import { useState } from 'react';
import { Copy, SlidersHorizontal, Star, Trash2 } from 'lucide-react';
import type { QuoteView, SavedBuild } from '../../../contract';
import { date, own } from '../../../i18n';
import { Button, Dialog, Field } from '../../../ui';
import { ask, sentences, type Answer } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import { useSpeech } from '../../speech';
import css from './start.module.css';

interface Props {
  open: boolean;
  view: QuoteView;
  models: { id: string; name: Record<string, string> }[];
  onClose: () => void;
}

/** What a build begins from. */
type From = { modelId: string } | { copyOf: string } | { savedId: string } | { partNumber: string };

/** Where a build can start from: a product or bundle, a kept build, a copy of a line, a part number. */
export function StartDialog({ open, view, models, onClose }: Props) {
  const { t, language } = useSpeech();
  const [error, setError] = useState<string>();
  const start = async (from: From) => {
    const answer = await ask('POST /builds', { input: { quoteId: view.id, ...from } });
    if (answer.ok) window.location.assign(`/bench/${answer.value.id}`);
    else setError(sentences(answer.failures, t('request.failed')));
  };
  const lines = view.lines.filter((line) => line.buildId);
  return (
    <Dialog title={t('start.title')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <div className={css.start}>
        <section aria-label={t('start.model')}>
          <h3>{t('start.model')}</h3>
          <div className={css.models}>
            {models.map((model, index) => (
              <Button
                key={model.id}
                data-first={index === 0 ? true : undefined}
                onClick={() => void start({ modelId: model.id })}
              >
                <SlidersHorizontal size={13} aria-hidden />
                {own(model.name, language)}
              </Button>
            ))}
          </div>
        </section>
        <NumberForm
          error={error}
          onTyped={() => setError(undefined)}
          onGo={(number) => void start({ partNumber: number })}
        />
        <KeptBuilds open={open} onStart={(savedId) => void start({ savedId })} onWrong={setError} />
        {lines.length > 0 && (
          <section aria-label={t('start.copy')}>
            <h3>{t('start.copy')}</h3>
            <ul className={css.list}>
              {lines.map((line) => (
                <li key={line.id}>
                  <button
                    type="button"
                    className={css.kept}
                    aria-label={t('start.copyOf', { line: line.position })}
                    onClick={() => void start({ copyOf: line.buildId as string })}
                  >
                    <Copy size={13} aria-hidden /> <b>{own(line.name, language)}</b>{' '}
                    <span className={css.code}>{line.partNumber}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </Dialog>
  );
}

/** A part number to begin from; what is wrong with any beginning is told here. */
function NumberForm({
  error,
  onTyped,
  onGo,
}: {
  error: string | undefined;
  onTyped: () => void;
  onGo: (number: string) => void;
}) {
  const { t } = useSpeech();
  const [number, setNumber] = useState('');
  return (
    <form
      method="dialog"
      aria-label={t('start.number')}
      className={css.number}
      onSubmit={(event) => {
        event.preventDefault();
        if (number.trim()) onGo(number);
      }}
    >
      <Field
        label={t('start.number')}
        hint={t('start.numberHint')}
        error={error}
        value={number}
        onChange={(event) => {
          setNumber(event.target.value);
          onTyped();
        }}
      />
      <Button type="submit" disabled={number.trim() === ''}>
        {t('start.numberGo')}
      </Button>
    </form>
  );
}

/** Builds that are kept: begun from, starred, and one's own removed. */
function KeptBuilds({
  open,
  onStart,
  onWrong,
}: {
  open: boolean;
  onStart: (id: string) => void;
  onWrong: (sentence: string) => void;
}) {
  const { t, language } = useSpeech();
  const { last, again } = useAnswer<SavedBuild[]>(open ? 'kept' : null, () => ask('GET /saved'));
  const kept = last?.ok ? last.value : [];
  const told = async (answer: Answer<null>) => {
    if (answer.ok) await again();
    else onWrong(sentences(answer.failures, t('request.failed')));
  };
  const star = async ({ id, starred }: SavedBuild) =>
    told(await ask('PATCH /saved/{id}', { at: { id }, input: { starred: !starred } }));
  const remove = async ({ id }: SavedBuild) => told(await ask('DELETE /saved/{id}', { at: { id } }));
  return (
    <section aria-label={t('saved.title')}>
      <h3>{t('saved.title')}</h3>
      {kept.length === 0 && <p className={css.quiet}>{t('saved.none')}</p>}
      {kept.length > 0 && (
        <ul className={css.list}>
          {kept.map((build) => (
            <li key={build.id}>
              <Button
                look="plain"
                aria-pressed={build.starred}
                aria-label={t(build.starred ? 'saved.unstar' : 'saved.star', { name: build.name })}
                onClick={() => void star(build)}
              >
                <Star size={14} fill={build.starred ? 'currentColor' : 'none'} aria-hidden />
              </Button>
              <button type="button" className={css.kept} onClick={() => onStart(build.id)}>
                <b>{build.name}</b> <span className={css.code}>{build.partNumber}</span>
                <span className={css.quiet}>
                  {own(build.model, language)} ·{' '}
                  {build.mine ? date(build.savedAt, language) : t('saved.by', { who: build.owner })}
                </span>
              </button>
              {build.mine && (
                <Button
                  look="plain"
                  aria-label={t('saved.remove', { name: build.name })}
                  onClick={() => void remove(build)}
                >
                  <Trash2 size={13} aria-hidden />
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
