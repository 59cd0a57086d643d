import { useEffect, useRef, useState, type RefObject } from 'react';
import { useLatest } from '../../ui';
import { useSpeech } from '../speech';
import { blocksIn, drawPage, openPages, pageOfBlock, type PDFDocumentProxy } from './reader';
import type { SetPages } from './session/paper-session';
import css from './paper.module.css';

interface Props {
  set: SetPages | null;
  /** The block whose page is to be seen. */
  block: string | null;
  /** Width of a page on the screen; where none is chosen, it is as wide as there is room, but no wider than `usual`. */
  width?: number;
  usual?: number;
  /** Tells which blocks that are on have nothing to show. */
  onEmpty: (keys: ReadonlySet<string>) => void;
}

/** Width of a page where there is room. */
export const usualWidth = 620;

interface Opened {
  pages: PDFDocumentProxy;
  count: number;
  ratio: number;
}

/** The real pages of a document, as they will be sent. */
export function Pages({ set, block, width, usual = usualWidth, onEmpty }: Props) {
  const { t } = useSpeech();
  const opened = useOpened(set, onEmpty);
  const frame = useRef<HTMLDivElement>(null);
  const room = useRoom(frame, opened !== null);
  useEffect(() => {
    if (!opened || block === null) return undefined;
    let gone = false;
    void pageOfBlock(opened.pages, block).then((at) => {
      if (gone || at === null) return;
      const page = frame.current?.querySelector<HTMLElement>(`[data-page="${String(at + 1)}"]`);
      if (page && !isSeen(page, frame.current)) page.scrollIntoView({ block: 'start' });
    });
    return () => {
      gone = true;
    };
  }, [opened, block]);
  if (!opened) return <p className={css.waiting}>{t('composer.setting')}</p>;
  return (
    <div ref={frame} className={css.pages} tabIndex={0} role="region" aria-label={t('composer.pages')}>
      {Array.from({ length: opened.count }, (_, at) => (
        <Page key={at} opened={opened} number={at + 1} width={width ?? Math.min(usual, room)} />
      ))}
    </div>
  );
}

/** Room for a page beside the edges, which follows the window. */
function useRoom(frame: RefObject<HTMLElement | null>, drawn: boolean): number {
  const [room, setRoom] = useState(usualWidth);
  useEffect(() => {
    const { current } = frame;
    if (!drawn || !current) return undefined;
    const observer = new ResizeObserver(() => {
      const { paddingLeft, paddingRight } = getComputedStyle(current);
      setRoom(
        Math.max(200, Math.floor(current.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight))),
      );
    });
    observer.observe(current);
    return () => observer.disconnect();
  }, [frame, drawn]);
  return room;
}

/** Whether most of what is seen is of a page. */
function isSeen(page: HTMLElement, frame: HTMLElement | null): boolean {
  const [inner, outer] = [page.getBoundingClientRect(), frame?.getBoundingClientRect()];
  return (
    outer !== undefined &&
    inner.top < outer.top + outer.height / 2 &&
    inner.bottom > outer.top + outer.height / 3
  );
}

/** Pages opened; those before stay until the next are there. */
function useOpened(set: SetPages | null, onEmpty: Props['onEmpty']): Opened | null {
  const [opened, setOpened] = useState<Opened | null>(null);
  const tell = useLatest(onEmpty);
  useEffect(() => {
    if (!set) return undefined;
    let gone = false;
    void openPages(set.bytes).then(async (pages) => {
      const [first, shown] = [await pages.getPage(1), await blocksIn(pages)];
      const { width, height } = first.getViewport({ scale: 1 });
      if (gone) {
        await pages.destroy();
        return;
      }
      tell.current(new Set(set.of.blocks.flatMap(({ key, on }) => (on && !shown.has(key) ? key : []))));
      setOpened((before) => {
        void before?.pages.destroy();
        return { pages, count: pages.numPages, ratio: height / width };
      });
    });
    return () => {
      gone = true;
    };
  }, [set, tell]);
  return opened;
}

/** A page, drawn once it is near what is seen. */
function Page({ opened, number, width }: { opened: Opened; number: number; width: number }) {
  const { t } = useSpeech();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [near, setNear] = useState(number <= 2);
  const [words, setWords] = useState('');
  useEffect(() => {
    const { current } = canvas;
    if (!current || near) return undefined;
    const observer = new IntersectionObserver(
      (entries) => entries.some(({ isIntersecting }) => isIntersecting) && setNear(true),
      { rootMargin: '600px' },
    );
    observer.observe(current);
    return () => observer.disconnect();
  }, [near]);
  useEffect(() => {
    const { current } = canvas;
    if (!near || !current) return undefined;
    const left = new AbortController();
    const draw = async (): Promise<void> => {
      const page = await opened.pages.getPage(number);
      left.signal.throwIfAborted();
      const read = await drawPage(page, current, width);
      left.signal.throwIfAborted();
      setWords(read);
    };
    // Pages that were taken away while they are drawn are no trouble.
    draw().catch(() => undefined);
    return () => left.abort();
  }, [near, opened, number, width]);
  return (
    <figure
      className={css.sheet}
      data-page={number}
      style={{ inlineSize: width, blockSize: width * opened.ratio }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={t('composer.page', { page: number, pages: opened.count })}
        data-words={words}
      />
    </figure>
  );
}
