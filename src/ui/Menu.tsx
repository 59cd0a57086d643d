import { useRef, useState, type ReactNode } from 'react';
import {
  flip,
  FloatingFocusManager,
  offset,
  useClick,
  useDismiss,
  useFloating,
  useInteractions,
  useListNavigation,
  useRole,
} from '@floating-ui/react';
import { Button } from './Button';
import { floatingRefs } from './floating-refs';
import css from './ui.module.css';

/** Something that a menu does or leads to. */
export interface MenuItem {
  id: string;
  text: ReactNode;
  /** A link that leads there or downloads it, else something that is done. */
  href?: string;
  download?: boolean;
  onPick?: () => void;
}

/** A button that opens a list of things to do: arrows go through it, Escape closes. */
export function Menu({
  label,
  children,
  items,
}: {
  label: string;
  children: ReactNode;
  items: readonly MenuItem[];
}) {
  const [open, setOpen] = useState(false);
  const [active, setActive] = useState<number | null>(null);
  const list = useRef<(HTMLElement | null)[]>([]);
  const { refs, floatingStyles, context } = useFloating({
    open,
    onOpenChange: setOpen,
    placement: 'bottom-end',
    middleware: [offset(4), flip()],
  });
  const { anchor, panel } = floatingRefs(refs);
  const { getReferenceProps, getFloatingProps, getItemProps } = useInteractions([
    useClick(context),
    useDismiss(context),
    useRole(context, { role: 'menu' }),
    useListNavigation(context, { listRef: list, activeIndex: active, onNavigate: setActive, loop: true }),
  ]);
  return (
    <>
      <span ref={anchor}>
        <Button aria-label={label} title={label} {...getReferenceProps()}>
          {children}
        </Button>
      </span>
      {open && (
        <FloatingFocusManager context={context} modal={false}>
          <div ref={panel} className={css.menu} style={floatingStyles} {...getFloatingProps()}>
            {items.map((item, index) => {
              const props = {
                ref: (element: HTMLElement | null) => {
                  list.current[index] = element;
                },
                className: css.menuItem,
                tabIndex: active === index ? 0 : -1,
                role: 'menuitem',
                ...getItemProps({
                  onClick: () => {
                    setOpen(false);
                    item.onPick?.();
                  },
                }),
              };
              return item.href === undefined ? (
                <button key={item.id} type="button" {...props}>
                  {item.text}
                </button>
              ) : (
                <a key={item.id} href={item.href} {...(item.download ? { download: true } : {})} {...props}>
                  {item.text}
                </a>
              );
            })}
          </div>
        </FloatingFocusManager>
      )}
    </>
  );
}
