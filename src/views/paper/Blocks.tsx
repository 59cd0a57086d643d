import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import { ChevronDown, ChevronRight, GripVertical } from 'lucide-react';
import type { BlockChoice } from '../../core/paper';
import { own } from '../../i18n';
import { classes } from '../../ui';
import { useSpeech } from '../speech';
import { BlockSettings } from './settings/BlockSettings';
import type { Paper } from './session/usePaper';
import css from './paper.module.css';

interface Props {
  paper: Paper;
  /** The block whose settings are open. */
  open: string | null;
  /** Those that are on and have nothing to show. */
  empty: ReadonlySet<string>;
  onOpen: (key: string | null) => void;
}

/** The blocks of the document in their order, each on or off, with its settings beneath. */
export function Blocks({ paper, open, empty, onOpen }: Props) {
  const { t } = useSpeech();
  const { composition } = paper;
  const [drop, setDrop] = useState<number | null>(null);
  return (
    <ol className={css.blocks} aria-label={t('composer.blocks')}>
      {composition.blocks.map((block, at) => (
        <Block
          key={block.key}
          block={block}
          at={at}
          open={open === block.key}
          empty={block.on && empty.has(block.key)}
          drop={drop === at}
          paper={paper}
          onOpen={() => {
            onOpen(open === block.key ? null : block.key);
            paper.session.look(block.key);
          }}
          onDrop={setDrop}
        />
      ))}
    </ol>
  );
}

interface BlockProps {
  block: BlockChoice;
  at: number;
  open: boolean;
  empty: boolean;
  drop: boolean;
  paper: Paper;
  onOpen: () => void;
  onDrop: (at: number | null) => void;
}

function Block({ block, at, open, empty, drop, paper, onOpen, onDrop }: BlockProps) {
  const { t } = useSpeech();
  const { session, view } = paper;
  const name = useBlockName(paper)(block);
  const row = useDragged(block.key, at, view.mayEdit, session, onDrop);
  const onKey = (event: KeyboardEvent): void => {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    session.move(block.key, at + (event.key === 'ArrowUp' ? -1 : 1));
  };
  return (
    <li className={classes(css.block, drop && css.drop)} data-block={block.key} onKeyDown={onKey}>
      <div ref={row} className={css.line}>
        <span className={css.grip} data-grip aria-hidden>
          <GripVertical size={14} />
        </span>
        <label className={css.name}>
          <input
            type="checkbox"
            checked={block.on}
            disabled={!view.mayEdit}
            aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
            onChange={(event) => session.block(block.key, { on: event.target.checked })}
          />
          <span className={classes((!block.on || empty) && css.off)}>{name}</span>
          {block.own && <span className={css.own}>{t('composer.ownText')}</span>}
          {empty && <span className={css.none}>{t('composer.unfilled')}</span>}
        </label>
        <button
          type="button"
          className={css.fold}
          aria-expanded={open}
          aria-label={t('composer.settings', { block: name })}
          onClick={onOpen}
        >
          {open ? <ChevronDown size={15} aria-hidden /> : <ChevronRight size={15} aria-hidden />}
        </button>
      </div>
      {open && <BlockSettings block={block} paper={paper} />}
    </li>
  );
}

/** What a block is called: a text of the house by its own name. */
function useBlockName({ view }: Paper): (block: BlockChoice) => string {
  const { t, language } = useSpeech();
  return ({ kind, text, key }) => {
    if (kind !== 'text') return t(`composer.block.${kind}`);
    const found = view.texts.find(({ code }) => code === text);
    return found ? own(found.name, language) : key;
  };
}

/** A row that is dragged by its grip to the place of another. */
function useDragged(
  key: string,
  at: number,
  may: boolean,
  session: Paper['session'],
  onDrop: (at: number | null) => void,
) {
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = row.current;
    const handle = element?.querySelector<HTMLElement>('[data-grip]');
    if (!element || !handle || !may) return undefined;
    return combine(
      draggable({ element, dragHandle: handle, getInitialData: () => ({ key }) }),
      dropTargetForElements({
        element,
        canDrop: ({ source }) => typeof source.data.key === 'string' && source.data.key !== key,
        onDragEnter: () => onDrop(at),
        onDragLeave: () => onDrop(null),
        onDrop: ({ source }) => {
          onDrop(null);
          session.move(String(source.data.key), at);
        },
      }),
    );
  }, [key, at, may, session, onDrop]);
  return row;
}
