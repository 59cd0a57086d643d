import { type ReactNode } from 'react';
import {
  BookCopy,
  ChartNoAxesColumn,
  CheckCheck,
  Columns3,
  Ellipsis,
  FileDown,
  FileX2,
  Landmark,
  PackageOpen,
  Redo2,
  Send,
  SlidersHorizontal,
  Table2,
  Undo2,
} from 'lucide-react';
import type { QuoteView } from '../../contract';
import { keysIn } from '../../i18n';
import { Button, classes, LinkButton, useMedia } from '../../ui';
import { Menu, type MenuItem } from '../../ui/Menu';
import { useCommands } from '../shell/commands';
import { useSpeech } from '../speech';
import css from './ledger.module.css';
import type { Trouble } from './session/sender';
import { smallPage } from './small';
import { brokenIn } from './side/Totals';

/** A dialog that the head opens. */
export type HeadDialog = 'start' | 'paste' | 'customer' | 'accept' | 'send' | 'lose' | 'freshen' | 'columns';

/** What the head shows and does. */
export interface Props {
  view: QuoteView;
  /** Changes under way, and what keeps them from being stored. */
  pending: number;
  trouble: Trouble | null;
  walkOpen: boolean;
  revisionsOpen: boolean;
  onWalk: () => void;
  onRevisions: () => void;
  onDeal: () => void;
  onSignOff: () => void;
  onContact: () => void;
  onStep: (way: 'undo' | 'redo') => void;
  onDialog: (dialog: HeadDialog) => void;
  onRevise: () => void;
}

/** Whose quote it is, how it stands, and what can be done with it. */
export function Head({
  view,
  pending,
  trouble,
  walkOpen,
  revisionsOpen,
  onWalk,
  onRevisions,
  onDeal,
  onSignOff,
  onContact,
  onStep,
  onDialog,
  onRevise,
}: Props) {
  const { t, language } = useSpeech();
  const { may, revision, signOff } = view;
  const unsigned = signOff?.needs.some((need) => !need.held) ?? false;
  const empty = view.lines.length === 0;
  const broken = brokenIn(view).length > 0;
  const revisionQuery =
    revision.number === view.revisions[0]?.number ? '' : `?revision=${String(revision.number)}`;
  const file = (format: string, to: 'customer' | 'internal') =>
    `/api/quotes/${view.id}/lines.${format}?${[...(to === 'internal' ? ['internal'] : []), ...(revisionQuery === '' ? [] : [revisionQuery.slice(1)])].join('&')}`.replace(
      /\?$/,
      '',
    );
  const step = (way: 'undo' | 'redo', mark: ReactNode, keys: string) => ({
    id: way,
    name: t(`bench.${way}`),
    keys,
    text: (
      <>
        {mark}
        {t(`bench.${way}`)} ({keysIn(keys, language)})
      </>
    ),
    onPick: () => onStep(way),
  });
  // Where there is little room, what stands beside the main acts goes into the menu.
  const narrow = useMedia('(max-width: 1180px)');
  const small = useMedia(smallPage);
  const act = (id: string, name: string, mark: ReactNode, onPick: () => void) => ({
    id,
    name,
    text: (
      <>
        {mark}
        {name}
      </>
    ),
    onPick,
  });
  const pdf = {
    id: 'pdf',
    name: t('ledger.pdf'),
    text: (
      <>
        <FileDown size={14} aria-hidden />
        {t('ledger.pdf')}
      </>
    ),
    href: `/api/quotes/${view.id}/quotation.pdf${revisionQuery}`,
    download: true,
  };
  const more: (MenuItem & { name: string; keys?: string })[] = [
    ...(small && may.edit
      ? [
          act('configure', t('catalogue.configure'), <SlidersHorizontal size={14} aria-hidden />, () =>
            onDialog('start'),
          ),
        ]
      : []),
    ...(narrow ? [act('walk', t('ledger.walk'), <ChartNoAxesColumn size={14} aria-hidden />, onWalk)] : []),
    ...(view.resale ? [] : [act('deal', t('deal.open'), <Landmark size={14} aria-hidden />, onDeal)]),
    ...(narrow ? [pdf] : []),
    ...(small && may.revise
      ? [
          act(
            'revise',
            t(revisionQuery === '' ? 'revision.begin' : 'revision.beginFrom'),
            <BookCopy size={14} aria-hidden />,
            onRevise,
          ),
        ]
      : []),
    ...(small && may.send && !empty && !unsigned
      ? [act('send', t('revision.send'), <Send size={14} aria-hidden />, () => onDialog('send'))]
      : []),
    ...(may.edit && view.steps.undo ? [step('undo', <Undo2 size={14} aria-hidden />, 'Ctrl Z')] : []),
    ...(may.edit && view.steps.redo ? [step('redo', <Redo2 size={14} aria-hidden />, 'Ctrl Shift Z')] : []),
    {
      id: 'columns',
      name: t('column.open'),
      text: (
        <>
          <Columns3 size={14} aria-hidden />
          {t('column.open')}
        </>
      ),
      onPick: () => onDialog('columns'),
    },
    ...(empty
      ? []
      : (['customer', 'internal'] as const).flatMap((to) =>
          (['csv', 'xlsx'] as const).map((format) => ({
            id: `${to}.${format}`,
            name: t(`ledger.export.${to}.${format}`),
            text: (
              <>
                <Table2 size={14} aria-hidden />
                {t(`ledger.export.${to}.${format}`)}
              </>
            ),
            href: file(format, to),
            download: true,
          })),
        )),
    ...(may.lose
      ? [
          {
            id: 'lose',
            name: t('lost.mark'),
            text: (
              <>
                <FileX2 size={14} aria-hidden />
                {t('lost.mark')}
              </>
            ),
            onPick: () => onDialog('lose'),
          },
        ]
      : []),
  ];
  useCommands(() => [
    ...(may.edit
      ? [
          { id: 'configure', text: t('catalogue.configure'), act: () => onDialog('start') },
          { id: 'list', text: t('paste.open'), act: () => onDialog('paste') },
        ]
      : []),
    { id: 'walk', text: t('ledger.walk'), act: onWalk },
    ...(view.resale ? [] : [{ id: 'deal', text: t('deal.open'), act: onDeal }]),
    ...(signOff && (signOff.needs.length > 0 || signOff.history.length > 0)
      ? [
          {
            id: 'signOff',
            text: t(may.edit && unsigned && signOff.mayAnswer.length === 0 ? 'signOff.ask' : 'signOff.title'),
            also: t('signOff.title'),
            act: onSignOff,
          },
        ]
      : []),
    { id: 'revisions', text: t('revision.title'), act: onRevisions },
    {
      id: 'pdf',
      text: t('ledger.pdf'),
      also: 'PDF',
      act: () => window.location.assign(`/api/quotes/${view.id}/quotation.pdf${revisionQuery}`),
    },
    ...(may.revise
      ? [
          {
            id: 'revise',
            text: t(revisionQuery === '' ? 'revision.begin' : 'revision.beginFrom'),
            act: onRevise,
          },
        ]
      : []),
    ...(may.send && !empty && !unsigned
      ? [{ id: 'send', text: t('revision.send'), act: () => onDialog('send') }]
      : []),
    ...(may.accept && !empty && !unsigned
      ? [
          {
            id: 'accept',
            text: t('ledger.accept'),
            also: t('ledger.acceptShort'),
            act: () => onDialog('accept'),
          },
        ]
      : []),
    ...(may.edit
      ? [
          { id: 'customer', text: t('customer.change'), act: () => onDialog('customer') },
          { id: 'contact', text: t('contact.change'), act: onContact },
        ]
      : []),
    ...(may.edit && !empty
      ? [{ id: 'freshen', text: t('fresh.title'), act: () => onDialog('freshen') }]
      : []),
    ...more
      .filter(({ id }) => !['configure', 'walk', 'deal', 'pdf', 'revise', 'send'].includes(id))
      .flatMap(({ id, name, keys, href, onPick }) =>
        onPick
          ? [{ id, text: name, ...(keys === undefined ? {} : { keys }), act: onPick }]
          : href === undefined
            ? []
            : [{ id, text: name, act: () => window.location.assign(href) }],
      ),
  ]);
  return (
    <header className={css.head}>
      <div className={css.title}>
        <h1 title={view.customer.name}>{view.customer.name}</h1>
        <span className={css.number}>{view.number}</span>
      </div>
      <div className={css.facts}>
        <span className={classes(css.state, css[revision.shown])}>{t(`state.${revision.shown}`)}</span>
        {view.title && (
          <b className={css.name} title={view.title}>
            {view.title}
          </b>
        )}
        <button type="button" className={css.asks} aria-pressed={revisionsOpen} onClick={onRevisions}>
          {t('ledger.revision', { number: revision.number })}
        </button>
      </div>
      <div className={css.acts}>
        {may.edit &&
          (trouble && pending > 0 ? (
            <span className={classes(css.saved, css.notStored)} role="alert" title={t(`ledger.${trouble}`)}>
              {t('ledger.notStored', { count: pending })}
              {trouble === 'signedOut' && (
                <>
                  {' '}
                  <a href="/sign-in" target="_blank">
                    {t('ledger.signInAgain')}
                  </a>
                </>
              )}
            </span>
          ) : (
            <span className={css.saved} role="status">
              {pending > 0 ? t('ledger.saving') : t('ledger.saved')}
            </span>
          ))}
        {may.edit && !small && (
          <Button onClick={() => onDialog('start')}>
            <SlidersHorizontal size={14} aria-hidden />
            {t('catalogue.configure')}
          </Button>
        )}
        {!narrow && (
          <Button aria-pressed={walkOpen} onClick={onWalk}>
            <ChartNoAxesColumn size={14} aria-hidden />
            {t('ledger.walk')}
          </Button>
        )}
        {!narrow && (
          <LinkButton href={pdf.href} download>
            <FileDown size={14} aria-hidden />
            {t('ledger.pdf')}
          </LinkButton>
        )}
        {view.order && (
          <LinkButton look="main" href={`/orders/${view.order.id}`}>
            <PackageOpen size={14} aria-hidden />
            {t('ledger.order', { number: view.order.number })}
          </LinkButton>
        )}
        {may.revise && !small && (
          <Button onClick={onRevise}>
            <BookCopy size={14} aria-hidden />
            {t(revisionQuery === '' ? 'revision.begin' : 'revision.beginFrom')}
          </Button>
        )}
        {may.send && !small && (
          <Button
            disabled={empty || unsigned}
            title={unsigned ? t('signOff.first') : broken ? t('ledger.brokenFirst') : undefined}
            onClick={() => onDialog('send')}
          >
            <Send size={14} aria-hidden />
            {t('revision.send')}
          </Button>
        )}
        {may.accept && (
          <Button
            {...(broken ? {} : { look: 'main' as const })}
            disabled={empty || unsigned}
            title={unsigned ? t('signOff.first') : broken ? t('ledger.brokenFirst') : undefined}
            onClick={() => onDialog('accept')}
          >
            <CheckCheck size={15} aria-hidden />
            {t(small ? 'ledger.acceptShort' : 'ledger.accept')}
          </Button>
        )}
        <Menu label={t('ledger.more')} items={more}>
          <Ellipsis size={15} aria-hidden />
        </Menu>
      </div>
    </header>
  );
}
