import {
  BookCopy,
  ChartNoAxesColumn,
  CheckCheck,
  Ellipsis,
  FileText,
  PackageOpen,
  Send,
  SlidersHorizontal,
} from 'lucide-react';
import type { QuoteView } from '../../contract';
import { Button, classes, LinkButton, useMedia } from '../../ui';
import { Menu } from '../../ui/Menu';
import { useCommands } from '../shell/commands';
import { useSpeech } from '../speech';
import css from './ledger.module.css';
import {
  commandsOf,
  isUnsigned,
  menuOf,
  paperOf,
  quoteActs,
  reviseName,
  widths,
  type QuoteActsOn,
} from './quote-acts';
import type { Trouble } from './session/sender';
import { brokenIn } from './side/Totals';

export type { HeadDialog } from './quote-acts';

/** What the head shows and does. */
export interface Props extends QuoteActsOn {
  view: QuoteView;
  /** Changes under way, and what keeps them from being stored. */
  pending: number;
  trouble: Trouble | null;
  walkOpen: boolean;
  revisionsOpen: boolean;
}

/** Whose quote it is, how it stands, and what can be done with it. */
export function Head(props: Props) {
  const { view, revisionsOpen, onRevisions } = props;
  const { t, language } = useSpeech();
  // Where there is little room, what stands beside the main acts goes into the menu.
  const page = { narrow: useMedia(widths.narrow), small: useMedia(widths.small) };
  const acts = quoteActs(view, props, t);
  useCommands(() => commandsOf(acts));
  const { revision } = view;
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
        {view.may.edit && <Stored {...props} />}
        <Buttons {...props} page={page} />
        <Menu label={t('ledger.more')} items={menuOf(acts, page, language)}>
          <Ellipsis size={15} aria-hidden />
        </Menu>
      </div>
    </header>
  );
}

/** Whether what was changed is stored. */
function Stored({ pending, trouble }: Pick<Props, 'pending' | 'trouble'>) {
  const { t } = useSpeech();
  if (!trouble || pending === 0)
    return (
      <span className={css.saved} role="status">
        {pending > 0 ? t('ledger.saving') : t('ledger.saved')}
      </span>
    );
  return (
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
  );
}

/** What stands in the head itself, as far as there is room. */
function Buttons({
  view,
  walkOpen,
  onWalk,
  onDialog,
  onRevise,
  page: { narrow, small },
}: Props & { page: { narrow: boolean; small: boolean } }) {
  const { t } = useSpeech();
  const { may } = view;
  return (
    <>
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
        <LinkButton href={paperOf(view)}>
          <FileText size={14} aria-hidden />
          {t('ledger.compose')}
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
          {reviseName(view, t)}
        </Button>
      )}
      <SendAndAccept view={view} small={small} onDialog={onDialog} />
    </>
  );
}

/** The two by which a quote goes on; they say what stands in their way. */
function SendAndAccept({ view, small, onDialog }: Pick<Props, 'view' | 'onDialog'> & { small: boolean }) {
  const { t } = useSpeech();
  const broken = brokenIn(view).length > 0;
  const unsigned = isUnsigned(view);
  const why = unsigned ? t('signOff.first') : broken ? t('ledger.brokenFirst') : undefined;
  const disabled = view.lines.length === 0 || unsigned;
  return (
    <>
      {view.may.send && !small && (
        <Button disabled={disabled} title={why} onClick={() => onDialog('send')}>
          <Send size={14} aria-hidden />
          {t('revision.send')}
        </Button>
      )}
      {view.may.accept && (
        <Button
          {...(broken ? {} : { look: 'main' as const })}
          disabled={disabled}
          title={why}
          onClick={() => onDialog('accept')}
        >
          <CheckCheck size={15} aria-hidden />
          {t(small ? 'ledger.acceptShort' : 'ledger.accept')}
        </Button>
      )}
    </>
  );
}
