/** All that can be done with a quote, each told once: the head, its menu and search-or-do follow from it. */
import type { ReactNode } from 'react';
import {
  BookCopy,
  ChartNoAxesColumn,
  Columns3,
  FileDown,
  FileText,
  FileX2,
  Landmark,
  Mails,
  MapPinned,
  MessagesSquare,
  Redo2,
  Send,
  SlidersHorizontal,
  Table2,
  Undo2,
} from 'lucide-react';
import type { QuoteView } from '../../contract';
import { keysIn, type Translate } from '../../i18n';
import type { MenuItem } from '../../ui/Menu';
import type { Command } from '../shell/commands';
import { smallPage } from './small';

/** A dialog that the head opens. */
export type HeadDialog = 'start' | 'paste' | 'customer' | 'accept' | 'send' | 'lose' | 'freshen' | 'columns';

/** What the page does where something of this is chosen. */
export interface QuoteActsOn {
  onWalk: () => void;
  onRevisions: () => void;
  onDeal: () => void;
  onSent: () => void;
  onColleagues: () => void;
  /** Begins a site schedule of its lines. */
  onSchedule: () => void;
  onSignOff: () => void;
  onContact: () => void;
  onStep: (way: 'undo' | 'redo') => void;
  onDialog: (dialog: HeadDialog) => void;
  onRevise: () => void;
}

/** Something that can be done with a quote now: by a function, or by going somewhere. */
export type QuoteAct = {
  id: string;
  name: string;
  /** More words by which it is found. */
  also?: string;
  keys?: string;
  mark?: ReactNode;
  /** When the menu has it: always, where the page is narrow or small, or never. */
  menu: 'always' | 'narrow' | 'small' | 'never';
} & ({ act: () => void } | { href: string });

/** How wide the page must be for what stands in the head, and not in its menu. */
export const widths = { narrow: '(max-width: 1180px)', small: smallPage } as const;

/** Asked for, or to be asked for, and not held yet. */
export const isUnsigned = ({ signOff }: QuoteView): boolean =>
  signOff?.needs.some((need) => !need.held) ?? false;

/** "?revision=2" where an older one is looked at, for what is fetched of it. */
export const revisionQuery = ({ revision, revisions }: QuoteView): string =>
  revision.number === revisions[0]?.number ? '' : `?revision=${String(revision.number)}`;

/** Where its document is composed. */
export const paperOf = (view: QuoteView): string => `/quotes/${view.id}/paper${revisionQuery(view)}`;

/** Where the quotation is fetched. */
export const pdfOf = (view: QuoteView): string => `/api/quotes/${view.id}/paper.pdf${revisionQuery(view)}`;

/** The name of a new revision: of this, or of an older one. */
export const reviseName = (view: QuoteView, t: Translate): string =>
  t(revisionQuery(view) === '' ? 'revision.begin' : 'revision.beginFrom');

const size = 14;

/** What can be done now, in the order of the menu. */
export function quoteActs(view: QuoteView, on: QuoteActsOn, t: Translate): QuoteAct[] {
  const { may, steps, signOff, resale } = view;
  const empty = view.lines.length === 0;
  const ready = !empty && !isUnsigned(view);
  const dialog = (id: string, opens: HeadDialog, name: string, more: Partial<QuoteAct> = {}): QuoteAct => ({
    id,
    name,
    menu: 'never',
    act: () => on.onDialog(opens),
    ...more,
  });
  const when = (holds: boolean, ...acts: QuoteAct[]): QuoteAct[] => (holds ? acts : []);
  return [
    ...when(
      may.edit,
      dialog('configure', 'start', t('catalogue.configure'), {
        mark: <SlidersHorizontal size={size} aria-hidden />,
        menu: 'small',
      }),
      dialog('list', 'paste', t('paste.open')),
    ),
    {
      id: 'walk',
      name: t('ledger.walk'),
      mark: <ChartNoAxesColumn size={size} aria-hidden />,
      menu: 'narrow',
      act: on.onWalk,
    },
    ...when(!resale, {
      id: 'deal',
      name: t('deal.open'),
      mark: <Landmark size={size} aria-hidden />,
      menu: 'always',
      act: on.onDeal,
    }),
    ...when(signOff !== undefined && (signOff.needs.length > 0 || signOff.history.length > 0), {
      id: 'signOff',
      name: t(
        may.edit && isUnsigned(view) && signOff?.mayAnswer.length === 0 ? 'signOff.ask' : 'signOff.title',
      ),
      also: t('signOff.title'),
      menu: 'never',
      act: on.onSignOff,
    }),
    { id: 'revisions', name: t('revision.title'), menu: 'never', act: on.onRevisions },
    {
      id: 'sent',
      name: t('sent.title'),
      mark: <Mails size={size} aria-hidden />,
      menu: 'always',
      act: on.onSent,
    },
    {
      id: 'colleagues',
      name: t('colleague.open'),
      also: t('colleague.also'),
      mark: <MessagesSquare size={size} aria-hidden />,
      menu: 'always',
      act: on.onColleagues,
    },
    ...when(!empty && (may.edit || may.lose || may.revise), {
      id: 'schedule',
      name: t('ledger.schedule'),
      mark: <MapPinned size={size} aria-hidden />,
      menu: 'always',
      act: on.onSchedule,
    }),
    {
      id: 'mail',
      name: t('mail.write'),
      also: 'mail',
      menu: 'never',
      href: `/quotes/${view.id}/send`,
    },
    {
      id: 'compose',
      name: t('ledger.compose'),
      mark: <FileText size={size} aria-hidden />,
      menu: 'narrow',
      href: paperOf(view),
    },
    {
      id: 'pdf',
      name: t('ledger.pdf'),
      also: 'PDF',
      mark: <FileDown size={size} aria-hidden />,
      menu: 'always',
      href: pdfOf(view),
    },
    ...when(may.revise, {
      id: 'revise',
      name: reviseName(view, t),
      mark: <BookCopy size={size} aria-hidden />,
      menu: 'small',
      act: on.onRevise,
    }),
    ...when(
      may.send && ready,
      dialog('send', 'send', t('revision.send'), { mark: <Send size={size} aria-hidden />, menu: 'small' }),
    ),
    ...when(
      may.accept && ready,
      dialog('accept', 'accept', t('ledger.accept'), { also: t('ledger.acceptShort') }),
    ),
    ...when(may.edit, dialog('customer', 'customer', t('customer.change')), {
      id: 'contact',
      name: t('contact.change'),
      menu: 'never',
      act: on.onContact,
    }),
    ...when(may.edit && !empty, dialog('freshen', 'freshen', t('fresh.title'))),
    ...when(may.edit && steps.undo, stepAct('undo', 'Ctrl Z', <Undo2 size={size} aria-hidden />, on, t)),
    ...when(
      may.edit && steps.redo,
      stepAct('redo', 'Ctrl Shift Z', <Redo2 size={size} aria-hidden />, on, t),
    ),
    dialog('columns', 'columns', t('column.open'), {
      mark: <Columns3 size={size} aria-hidden />,
      menu: 'always',
    }),
    ...when(!empty, ...exportsOf(view, t)),
    ...when(
      may.lose,
      dialog('lose', 'lose', t('lost.mark'), { mark: <FileX2 size={size} aria-hidden />, menu: 'always' }),
    ),
  ];
}

function stepAct(
  way: 'undo' | 'redo',
  keys: string,
  mark: ReactNode,
  { onStep }: QuoteActsOn,
  t: Translate,
): QuoteAct {
  return { id: way, name: t(`bench.${way}`), keys, mark, menu: 'always', act: () => onStep(way) };
}

/** The lines as a sheet, for the customer and for the house. */
function exportsOf(view: QuoteView, t: Translate): QuoteAct[] {
  return (['customer', 'internal'] as const).flatMap((to) =>
    (['csv', 'xlsx'] as const).map((format): QuoteAct => {
      const query = [...(to === 'internal' ? ['internal'] : []), revisionQuery(view).slice(1)].filter(
        Boolean,
      );
      return {
        id: `${to}.${format}`,
        name: t(`ledger.export.${to}.${format}`),
        mark: <Table2 size={size} aria-hidden />,
        menu: 'always',
        href: `/api/quotes/${view.id}/lines.${format}${query.length > 0 ? `?${query.join('&')}` : ''}`,
      };
    }),
  );
}

/** What search-or-do can do of it. */
export const commandsOf = (acts: readonly QuoteAct[]): Command[] =>
  acts.map((each) => ({
    id: each.id,
    text: each.name,
    ...(each.also === undefined ? {} : { also: each.also }),
    ...(each.keys === undefined ? {} : { keys: each.keys }),
    act: 'act' in each ? each.act : () => window.location.assign(each.href),
  }));

/** What the menu has, where the page is so wide. */
export const menuOf = (
  acts: readonly QuoteAct[],
  page: { narrow: boolean; small: boolean },
  language: string,
): MenuItem[] =>
  acts
    .filter(({ menu }) => menu === 'always' || (menu !== 'never' && page[menu]))
    .map((each) => ({
      id: each.id,
      text: (
        <>
          {each.mark}
          {each.name}
          {each.keys !== undefined && ` (${keysIn(each.keys, language)})`}
        </>
      ),
      ...('act' in each ? { onPick: each.act } : { href: each.href, download: true }),
    }));
