import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ClipboardCopy, CornerUpLeft, Redo2, TriangleAlert, Undo2 } from 'lucide-react';
import type { Decision, Target } from '../../core/engine';
import type { BenchView, QuoteView } from '../../core/quoting';
import type { Why } from '../../workers/bench.worker';
import { own } from '../../i18n';
import { Button, LinkButton, classes, say } from '../../ui';
import { ask, sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import css from './bench.module.css';
import { CodeRail } from './CodeRail';
import { RowControl } from './Row';
import { Side } from './Side';
import { Strip } from './Strip';
import { useBench } from './useBench';
import { WhyPanel } from './WhyPanel';
import { Words } from './words';

interface Props { language: string; view: BenchView }

const sectionKey = ({ id, place = '' }: BenchView['outline']['sections'][number]): string => `${place}/${id}`;

export default function BenchPage(props: Props) {
  return <Speech language={props.language}><Page {...props} /></Speech>;
}

function Page({ view }: Props) {
  const { t, language } = useSpeech();
  const bench = useBench(view);
  const { picture, moved, remarks } = bench;
  const { document, outline, quote, tariff } = view;
  const words = useMemo(() => new Words(outline, t, language), [outline, t, language]);
  const [asked, setAsked] = useState<{ target: Target; why: Why } | null>(null);
  const [clash, setClash] = useState<Why | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const frozen = quote.state !== 'draft';
  const movedRows = useMemo(() => new Set(moved.map((each) => each.row)), [moved]);
  const clashes = picture.state.clashes.length;

  const go = useCallback((row: string) => {
    const at = sheet.current?.querySelector<HTMLElement>(`[data-row="${row}"]`);
    at?.scrollIntoView({ block: 'nearest' });
    at?.querySelector<HTMLElement>('[data-tab][aria-checked="true"], [data-tab]')?.focus();
  }, []);
  const why = async (target: Target) => setAsked({ target, why: await bench.why(target) });
  const closeWhy = () => {
    const row = asked?.target.on.split('.')[0];
    setAsked(null);
    if (row) setTimeout(() => go(row), 0);
  };

  // The same functions all the time, so that rows that show the same stay as they are.
  const latest = useRef({ bench, why });
  latest.current = { bench, why };
  const acts = useMemo(() => ({
    onDecide: (decision: Decision) => { setAsked(null); void latest.current.bench.decide(decision); },
    onRelease: (on: string) => { setAsked(null); void latest.current.bench.release(on); },
    onWhy: (target: Target) => void latest.current.why(target),
  }), []);

  // The first thing to do is where one begins.
  useEffect(() => {
    const first = Object.values(view.picture.state.rows).find((row) => row.todo);
    if (first) go(first.id);
  }, [go, view]);

  useEffect(() => {
    let current = true;
    if (clashes === 0) setClash(null);
    else void bench.why().then((found) => { if (current) setClash(found); });
    return () => { current = false; };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- asked again for each new set of decisions
  }, [bench.decisions, clashes]);

  useEffect(() => {
    if (bench.save === 'refused') say(sentences(bench.refusals, t('request.failed')), true);
  }, [bench.save, bench.refusals, t]);

  const onQuote = async () => {
    if (view.line || frozen) {
      await bench.settled();
      window.location.assign(`/quotes/${quote.id}`);
      return;
    }
    await bench.settled();
    const now = await ask<QuoteView>('GET', `/api/quotes/${quote.id}`);
    const answer = now.ok ? await ask<QuoteView>('POST', `/api/builds/${view.build.id}/line`, { version: now.value.version, quantity: 1 }) : now;
    if (answer.ok) window.location.assign(`/quotes/${quote.id}`);
    else say(sentences(answer.failures, t('request.failed')), true);
  };

  const { rows } = picture.state;
  const shownRows = outline.sections.flatMap((section) => section.rows).filter((id) => rows[id]?.shown);
  const todo = shownRows.filter((id) => rows[id]?.todo || rows[id]?.clashing);
  const step = (direction: 1 | -1) => {
    const here = sheet.current?.ownerDocument.activeElement?.closest<HTMLElement>('[data-row]')?.dataset.row;
    const at = here ? shownRows.indexOf(here) : -1;
    const ahead = direction === 1 ? [...todo.filter((id) => shownRows.indexOf(id) > at), ...todo] : [...todo.filter((id) => shownRows.indexOf(id) < at).reverse(), ...[...todo].reverse()];
    if (ahead[0]) go(ahead[0]);
  };
  const keys = useRef<(event: KeyboardEvent) => void>(() => undefined);
  useEffect(() => {
    keys.current = (event) => {
      const typing = event.target instanceof HTMLInputElement;
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (command && key === 'z' && !typing) {
        event.preventDefault();
        void (event.shiftKey ? bench.redo() : bench.undo());
      } else if (command && event.key === 'Enter') void onQuote();
      else if (command && key === 's') event.preventDefault();
      else if (!command && !event.altKey && !typing && (key === 'n' || key === 'p')) {
        // The letter must not land in the field that is reached.
        event.preventDefault();
        step(key === 'n' ? 1 : -1);
      }
    };
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => keys.current(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);

  const copy = async () => {
    await navigator.clipboard.writeText(picture.number.text);
    say(t('bench.copied'));
  };
  const saveText = { saved: t('bench.saved'), saving: t('bench.saving'), offline: t('bench.notSaved'), refused: t('bench.notSaved') }[bench.save];
  const whyTitle = asked ? t('bench.why', { what: asked.target.on.includes('.') || typeof asked.target.value === 'boolean' ? words.subject(asked.target.on) : words.value(asked.target.on, asked.target.value) }) : '';

  return (
    <div className={css.page}>
      <header className={css.rail}>
        <div className={css.about}><h1>{own(document.name, language)} · {quote.customer}</h1><span className={css.aboutQuote}><a href={`/quotes/${quote.id}`}>{quote.number}</a></span></div>
        <CodeRail number={picture.number} outline={outline} onGo={go} />
        <div className={css.acts}>
          <span className={classes(css.saved, (bench.save === 'offline' || bench.save === 'refused') && css.bad)} role="status" title={bench.save === 'offline' ? t('bench.offline') : undefined}>{saveText}</span>
          <Button look="plain" onClick={() => void copy()} aria-label={t('bench.copy')} title={t('bench.copy')}><ClipboardCopy size={15} aria-hidden /></Button>
          {!frozen && <Button look="plain" disabled={!bench.canUndo} onClick={() => void bench.undo()} aria-label={t('bench.undo')} title={`${t('bench.undo')} (Ctrl Z)`}><Undo2 size={15} aria-hidden /></Button>}
          {!frozen && <Button look="plain" disabled={!bench.canRedo} onClick={() => void bench.redo()} aria-label={t('bench.redo')} title={`${t('bench.redo')} (Ctrl Shift Z)`}><Redo2 size={15} aria-hidden /></Button>}
          {view.line || frozen
            ? <LinkButton look="main" href={`/quotes/${quote.id}`} onClick={(event) => { event.preventDefault(); void onQuote(); }}><CornerUpLeft size={14} aria-hidden />{t('bench.back')}</LinkButton>
            : <Button look="main" disabled={!picture.state.complete || picture.price.unpriced.length > 0} onClick={() => void onQuote()}>{t('bench.put')}</Button>}
        </div>
      </header>

      <nav className={css.contents} aria-label={t('bench.contents')}>
        {picture.state.sections.map((section, index) => {
          const first = outline.sections[index];
          const firstRow = first?.rows.find((id) => rows[id]?.shown);
          if (!section.shown || !first) return null;
          return (
            <button key={sectionKey(first)} type="button" aria-label={first.place === undefined ? undefined : words.section(first)} className={classes(css.section, first.place !== undefined && css.sectionInside)} data-place={first.place === outline.sections[index - 1]?.place ? undefined : words.place(first.place)} onClick={() => firstRow && go(first.rows.find((id) => rows[id]?.todo) ?? firstRow)}>
              {own(first.name, language)}
              <span className={classes(css.count, section.todo > 0 && css.todo, section.clashes > 0 && css.bad)}>{section.clashes > 0 ? t('bench.clash', { count: section.clashes }) : section.todo > 0 ? t('bench.todo', { count: section.todo }) : ''}</span>
            </button>
          );
        })}
      </nav>

      <div className={css.sheet} ref={sheet} role="region" aria-label={t('bench.sheet')} tabIndex={-1}>
        {frozen && <p className={css.note}><TriangleAlert size={13} aria-hidden />{t('bench.settledQuote')}</p>}
        {clash && <WhyPanel clash title={t('bench.clashTitle')} why={clash} words={words} decimals={tariff.decimals} onTake={(way) => void bench.take(way.decisions)} />}
        {outline.sections.filter((section) => section.rows.some((id) => rows[id]?.shown)).map((section, index, shown) => {
          // A build inside says its part number once.
          const first = section.place !== shown[index - 1]?.place;
          return (
          <section key={sectionKey(section)} aria-label={words.section(section)} className={classes(section.place !== undefined && css.inside)}>
            <h2 className={css.sectionTitle}>{words.section(section)}{section.place !== undefined && first && <span className={css.insideNumber}>{picture.inside[section.place]}</span>}</h2>
            {section.rows.map((id) => {
              const state = rows[id];
              if (!state?.shown) return null;
              const feature = outline.features.find((each) => each.id === id);
              const parameter = outline.parameters.find((each) => each.id === id);
              const help = own((feature ?? parameter)?.help, language);
              return (
                <div key={id} className={classes(css.row, movedRows.has(id) && css.moved)} data-row={id}>
                  <div><p className={css.rowName}>{words.label(id)}</p>{help && state.todo && <p className={css.rowHelp}>{help}</p>}</div>
                  <RowControl feature={feature} parameter={parameter} state={state} words={words} differences={picture.differences} remarks={remarks} decimals={tariff.decimals} frozen={frozen} {...acts} />
                  {asked && asked.target.on.split('.')[0] === id && (
                    <WhyPanel title={whyTitle} why={asked.why} words={words} decimals={tariff.decimals} onClose={closeWhy} onTake={(way) => { setAsked(null); void bench.take(way.decisions).then(() => go(id)); }} />
                  )}
                </div>
              );
            })}
          </section>
          );
        })}
      </div>

      <Side picture={picture} view={view} words={words} />
      <Strip picture={picture} moved={moved} view={view} words={words} />
    </div>
  );
}
