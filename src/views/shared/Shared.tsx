import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { FileDown, Rotate3d } from 'lucide-react';
import type { SharedView } from '../../contract';
import type { Scene } from '../../core/drawing';
import { date, number } from '../../i18n';
import { Button, LinkButton } from '../../ui';
import { ask } from '../api';
import { Speech, useSpeech } from '../speech';
import { AnswerPanel, type Typed } from './AnswerPanel';
import { PageNodes } from './PageNodes';
import css from './shared.module.css';

// What turns drawings is large, and loads when somebody wants to turn one.
const Space = lazy(() => import('../parts/drawing/Space'));

interface Props {
  token: string;
  view: SharedView;
  /** What was typed and refused, where the page came back by itself. */
  typed: Typed | null;
  /** What came of an answer that was sent before the script ran. */
  said: 'order' | 'received' | null;
}

export default function Shared(props: Props) {
  return (
    <Speech language={props.view.language}>
      <Page {...props} />
    </Speech>
  );
}

function Page({ token, view: first, typed, said: saidFirst }: Props) {
  const { t, language } = useSpeech();
  const [view, setView] = useState(first);
  const [said, setSaid] = useState(saidFirst);
  useHash(token, view, setView);
  const { document } = view;
  const named = `${document.what} ${view.reference}`;
  return (
    <div className={css.shared}>
      <header className={css.top} style={{ borderBottomColor: document.colour }}>
        {document.head.mark !== null && (
          <img
            className={css.houseMark}
            src={`/api/shared/${token}/pictures/${document.head.mark}`}
            alt=""
            width={40}
            height={40}
          />
        )}
        <div>
          <strong>{view.house.name}</strong>
          <span>{document.head.lines.join(' · ')}</span>
        </div>
      </header>
      <div className={css.title}>
        {view.title !== '' && <p>{named}</p>}
        <h1>{view.title === '' ? named : view.title}</h1>
        {view.customer !== '' && <p>{view.customer}</p>}
        {view.validUntil !== null && <p>{t('shared.valid', { day: date(view.validUntil, language) })}</p>}
      </div>
      {view.newer && <p className={css.newer}>{t('shared.newer')}</p>}
      {view.accepted && (
        <p className={css.accepted} role="status">
          {t('shared.acceptedBy', {
            name: view.accepted.name,
            day: date(view.accepted.at.slice(0, 10), language),
          })}
        </p>
      )}
      <main className={css.document} lang={document.language}>
        {document.blocks.map((block) => (
          <section key={block.key} aria-label={block.title === '' ? undefined : block.title}>
            <PageNodes nodes={block.nodes} picture={(file) => `/api/shared/${token}/pictures/${file}`} />
          </section>
        ))}
      </main>
      <aside className={css.side}>
        {view.mayAnswer.length > 1 && (
          <a className={css.toAnswer} href="#answer">
            {t('shared.toAnswer')}
          </a>
        )}
        <Drawings token={token} builds={view.builds} />
        <Files token={token} documents={view.documents} />
        <AnswerPanel
          token={token}
          view={view}
          typed={typed}
          said={said}
          onAnswered={(is, now) => {
            setSaid(is);
            setView(now);
          }}
        />
        <p className={css.contact}>
          {t('shared.contact')}
          <br />
          <b>{view.contact.name}</b>
          <br />
          <a href={`mailto:${view.contact.email}`}>{view.contact.email}</a>
          {view.house.phone !== '' && (
            <>
              <br />
              {view.house.phone}
            </>
          )}
        </p>
      </aside>
      <footer className={css.foot}>
        {document.head.foot.join(' · ')}
        <br />
        {t('shared.until', { day: date(view.until, language) })}
      </footer>
    </div>
  );
}

/** The document that a yes is to may still be made: it is looked for until it is there. */
function useHash(token: string, view: SharedView, onView: (view: SharedView) => void): void {
  const { hash, mayAnswer } = view;
  const waits = hash === null && mayAnswer.includes('accepted');
  const tries = useRef(0);
  useEffect(() => {
    if (!waits || tries.current > 20) return undefined;
    const timer = setTimeout(() => {
      tries.current += 1;
      void ask('GET /shared/{token}', { at: { token } }).then((answer) => {
        if (answer.ok) onView(answer.value);
      });
    }, 1_500);
    return () => clearTimeout(timer);
  }, [waits, token, view, onView]);
}

/** Drawings to turn, one at a time. */
function Drawings({ token, builds }: { token: string; builds: SharedView['builds'] }) {
  const { t } = useSpeech();
  const [shown, setShown] = useState<{ id: string; scene: Scene } | null>(null);
  if (builds.length === 0) return null;
  const turn = async (id: string): Promise<void> => {
    if (shown?.id === id) {
      setShown(null);
      return;
    }
    const answer = await ask('GET /shared/{token}/builds/{id}', { at: { token, id } });
    if (answer.ok) setShown({ id, scene: answer.value });
  };
  return (
    <section className={css.panel} aria-label={t('shared.drawings')}>
      <h2>{t('shared.drawings')}</h2>
      {builds.map(({ id, name, partNumber }) => (
        <div key={id} className={css.build}>
          <Button aria-expanded={shown?.id === id} onClick={() => void turn(id)}>
            <Rotate3d size={15} aria-hidden />
            {t('shared.turn', { name })}
          </Button>
          <code>{partNumber}</code>
          {shown?.id === id && (
            <Suspense fallback={<p className={css.quiet}>{t('shared.loading')}</p>}>
              <Space scene={shown.scene} label={name} hint={t('shared.turnHint')} />
            </Suspense>
          )}
        </div>
      ))}
    </section>
  );
}

/** Documents to keep. */
function Files({ token, documents }: { token: string; documents: SharedView['documents'] }) {
  const { t, language } = useSpeech();
  if (documents.length === 0) return null;
  return (
    <section className={css.panel} aria-label={t('shared.documents')}>
      <h2>{t('shared.documents')}</h2>
      {documents.map(({ id, name, size }) => (
        <p key={id}>
          <LinkButton look="plain" href={`/api/shared/${token}/documents/${id}`} download>
            <FileDown size={15} aria-hidden />
            {name}
          </LinkButton>{' '}
          <span className={css.quiet}>
            {t('shared.kb', { kb: number(String(Math.ceil(size / 1024)), language, 0) })}
          </span>
        </p>
      ))}
    </section>
  );
}
