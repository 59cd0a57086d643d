import { useEffect, useState } from 'react';
import type { CatchUpView, DraftView, EditPage } from '../../../contract';
import { conflictKey, type Difference } from '../../../core/modelling';
import type { ModelDocument } from '../../../core/model';
import { date, dateTime } from '../../../i18n';
import { Button, Dialog, DialogFoot, Field, say } from '../../../ui';
import { ask, sentences, type Answer } from '../../api';
import { DayField } from '../../parts/DayField';
import { useSpeech } from '../../speech';
import { differenceText, editText } from '../change-words';
import { Exchange } from './Exchange';
import { Impact } from './Impact';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

/** What differs, what it would change out there, publishing, and the versions that there are. */
export function Versions({ draft, view }: Props) {
  return (
    <div className={css.scroll}>
      {view.behind && <CatchUp draft={draft} view={view} />}
      <Differences draft={draft} view={view} />
      <Impact draft={draft} view={view} />
      <Publish draft={draft} view={view} />
      <Published view={view} />
      <History draft={draft} view={view} />
    </div>
  );
}

function Differences({ draft, view }: Props) {
  const words = useSpeech();
  const { t } = words;
  const { version, saving, document } = draft;
  const [found, setFound] = useState<{ differences: Difference[]; base: ModelDocument } | null>(null);
  const base = view.versions.find(({ number: its }) => its === view.base)?.id;
  useEffect(() => {
    if (base === undefined || saving !== 'saved') return;
    void Promise.all([
      ask('GET /drafts/{id}/differences', { at: { id: view.id } }),
      ask('GET /versions/{id}', { at: { id: base } }),
    ]).then(([differences, before]) => {
      if (differences.ok && before.ok) setFound({ differences: differences.value, base: before.value });
    });
  }, [base, saving, version, view.id]);
  const title =
    view.base === null
      ? t('draft.release.fresh')
      : t('draft.release.differences', { number: String(view.base) });
  return (
    <section className={css.block}>
      <h2 className={css.heading}>
        {title}
        <span className={css.push} />
        <Exchange draft={view.id} part="document" out={['json']} />
      </h2>
      {found && found.differences.length === 0 && (
        <p className={css.quiet}>{t('draft.release.differencesNone')}</p>
      )}
      <ul className={css.differences} aria-label={title}>
        {(found?.differences ?? []).slice(0, 300).map((each, at) => (
          <li key={at}>
            {differenceText(each, { before: found?.base ?? document, after: document }, words)}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was done to the draft, by whom and when; what was taken back is struck out. */
function History({ draft, view }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const { version, saving, document } = draft;
  const [page, setPage] = useState<EditPage | null>(null);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    if (!open || saving !== 'saved') return;
    void ask('GET /drafts/{id}/edits', { at: { id: view.id }, query: { page: 0 } }).then((answer) => {
      if (answer.ok) setPage(answer.value);
    });
  }, [open, saving, version, view.id]);
  return (
    <details className={css.block} onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className={css.heading}>{t('draft.release.history')}</summary>
      <ul className={css.differences} aria-label={t('draft.release.history')}>
        {(page?.rows ?? []).map((each) => (
          <li key={each.number} data-undone={each.undone || undefined}>
            {editText(each.edit, document, words)}{' '}
            <span className={css.quiet}>
              {each.by}, {dateTime(each.at, language)}
            </span>
          </li>
        ))}
        {page && page.count > page.rows.length && (
          <li className={css.quiet}>{t('draft.remove.more', { count: page.count - page.rows.length })}</li>
        )}
      </ul>
    </details>
  );
}

function Publish({ draft, view }: Props) {
  const { t } = useSpeech();
  const [note, setNote] = useState('');
  const [from, setFrom] = useState(view.today);
  const [busy, setBusy] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const { session } = draft;
  const send = async <T,>(
    asking: (version: number) => Promise<Answer<T>>,
    then: (value: T) => void,
  ): Promise<void> => {
    setBusy(true);
    await session.settled();
    const answer = await asking(session.seen().version);
    setBusy(false);
    if (answer.ok) then(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const at = { id: view.id };
  return (
    <section className={css.block}>
      <h2 className={css.heading}>{t('draft.release.publish')}</h2>
      {view.secondEyes && (
        <div className={css.acts}>
          <span className={css.quiet}>{t('draft.release.needsEyes')}</span>
          <Button
            disabled={busy}
            onClick={() =>
              void send(
                (version) => ask('POST /drafts/{id}/agree', { at, input: { version } }),
                () => say(t('draft.release.agreed')),
              )
            }
          >
            {t('draft.release.agree')}
          </Button>
        </div>
      )}
      <form
        className={css.form}
        onSubmit={(event) => {
          event.preventDefault();
          void send(
            (version) => ask('POST /drafts/{id}/publish', { at, input: { version, note, from } }),
            ({ number: made }) => {
              say(t('draft.release.published', { number: String(made) }));
              window.location.assign('/models');
            },
          );
        }}
      >
        <Field
          label={t('draft.release.note')}
          value={note}
          onChange={({ target }) => setNote(target.value)}
        />
        <DayField label={t('draft.release.from')} value={from} min={view.today} onPick={setFrom} />
        <Button look="main" type="submit" disabled={busy}>
          {t('draft.release.publish')}
        </Button>
        <Button onClick={() => setLeaving(true)}>{t('draft.release.aside')}</Button>
      </form>
      <Dialog
        title={t('draft.release.aside')}
        closeText={t('frame.close')}
        open={leaving}
        onClose={() => setLeaving(false)}
      >
        <p>{t('draft.release.asideHint')}</p>
        <DialogFoot>
          <Button
            look="main"
            disabled={busy}
            onClick={() =>
              void send(
                (version) => ask('POST /drafts/{id}/aside', { at, input: { version } }),
                () => window.location.assign('/models'),
              )
            }
          >
            {t('draft.release.aside')}
          </Button>
        </DialogFoot>
      </Dialog>
    </section>
  );
}

/** The versions that there are; one that is withdrawn gives way to the one before. */
function Published({ view }: Pick<Props, 'view'>) {
  const { t, language } = useSpeech();
  const [versions, setVersions] = useState(view.versions);
  const [open, setOpen] = useState<string | null>(null);
  const [why, setWhy] = useState('');
  const chosen = versions.find(({ id }) => id === open);
  const withdraw = async (id: string): Promise<void> => {
    const answer = await ask('POST /versions/{id}/withdraw', { at: { id }, input: { note: why } });
    if (!answer.ok) {
      say(sentences(answer.failures, t('request.failed')), true);
      return;
    }
    setOpen(null);
    say(t('draft.release.done'));
    const now = await ask('GET /drafts/{id}', { at: { id: view.id } });
    if (now.ok) setVersions(now.value.versions);
  };
  return (
    <section className={css.block}>
      <h2 className={css.heading}>{t('draft.release.versions')}</h2>
      <table className={css.versions}>
        <thead>
          <tr>
            {(['number', 'inForce', 'by', 'note'] as const).map((each) => (
              <th key={each} scope="col">
                {t(`draft.release.${each}`)}
              </th>
            ))}
            <th aria-hidden />
          </tr>
        </thead>
        <tbody>
          {versions.map((each) => (
            <tr key={each.id} data-current={each.current || undefined}>
              <td>{each.number}</td>
              <td>
                {date(each.inForce, language)} {each.current && `· ${t('draft.release.current')}`}
              </td>
              <td>
                {each.by ?? '–'}, {dateTime(each.publishedAt, language)}
              </td>
              <td>
                {each.withdrawn ? t('draft.release.withdrawn', { note: each.withdrawn.note }) : each.note}
              </td>
              <td>
                <a href={`/api/versions/${each.id}`} download={`${view.modelId}-${String(each.number)}.json`}>
                  {t('draft.release.document')}
                </a>{' '}
                {!each.withdrawn && (
                  <Button look="plain" onClick={() => setOpen(each.id)}>
                    {t('draft.release.withdraw')}
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Dialog
        title={t('draft.release.withdrawWhy', { number: String(chosen?.number ?? '') })}
        closeText={t('frame.close')}
        open={chosen !== undefined}
        onClose={() => setOpen(null)}
      >
        <p>{t('draft.release.withdrawHint')}</p>
        <Field
          label={t('draft.release.withdrawWhy', { number: String(chosen?.number ?? '') })}
          value={why}
          onChange={({ target }) => setWhy(target.value)}
        />
        <DialogFoot>
          <Button look="main" disabled={why.trim() === ''} onClick={() => void withdraw(open ?? '')}>
            {t('draft.release.withdraw')}
          </Button>
        </DialogFoot>
      </Dialog>
    </section>
  );
}

/** Brings what was published since into the draft; what both changed differently is chosen, never lost. */
function CatchUp({ draft, view }: Props) {
  const words = useSpeech();
  const { t } = words;
  const [found, setFound] = useState<CatchUpView | null>(null);
  const [take, setTake] = useState<ReadonlySet<string>>(new Set());
  const { session, document } = draft;
  useEffect(() => {
    void session
      .settled()
      .then(() => ask('GET /drafts/{id}/catch-up', { at: { id: view.id } }))
      .then((answer) => {
        if (answer.ok) setFound(answer.value);
      });
  }, [session, view.id]);
  if (!found) return null;
  const bring = async (): Promise<void> => {
    const { version } = session.seen();
    const answer = await ask('POST /drafts/{id}/catch-up', {
      at: { id: view.id },
      input: { version, take: [...take] },
    });
    if (answer.ok) window.location.reload();
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const title = t('draft.release.catchUp', { number: String(found.to) });
  const told = (each: Difference): string =>
    differenceText(each, { before: document, after: document }, words);
  return (
    <section className={css.block} aria-label={title}>
      <h2 className={css.heading}>{title}</h2>
      <p className={css.quiet}>{t('draft.release.changes', { count: found.changes })}</p>
      {found.conflicts.map((conflict) => {
        const key = conflictKey(conflict);
        const choose = (theirs: boolean) => () => {
          const next = new Set(take);
          if (theirs) next.add(key);
          else next.delete(key);
          setTake(next);
        };
        return (
          <fieldset key={key} className={css.conflict}>
            <legend>{t('draft.release.conflict')}</legend>
            <label>
              <input type="radio" name={key} checked={!take.has(key)} onChange={choose(false)} />
              <span>
                {t('draft.release.ours')}: {conflict.ours.map(told).join(' · ')}
              </span>
            </label>
            <label>
              <input type="radio" name={key} checked={take.has(key)} onChange={choose(true)} />
              <span>
                {t('draft.release.theirs')}: {told(conflict.theirs)}
              </span>
            </label>
          </fieldset>
        );
      })}
      <div className={css.acts}>
        <Button look="main" onClick={() => void bring()}>
          {title}
        </Button>
      </div>
    </section>
  );
}
