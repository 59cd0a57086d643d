import { useEffect, useId, useRef, type ReactNode } from 'react';
import { X } from 'lucide-react';
import { Button } from './Button';
import css from './ui.module.css';

interface Props {
  title: string;
  closeText: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}

/**
 * A modal dialog on the platform's own element: focus begins at what is marked as `data-first`, else in the
 * first field, else at what the dialog is for; it stays inside, and returns; Escape closes.
 */
export function Dialog({ title, closeText, open, onClose, children }: Props) {
  const ref = useRef<HTMLDialogElement>(null);
  const id = useId();
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) {
      dialog.showModal();
      const body = dialog.querySelector(`.${css.dialogBody ?? ''}`);
      const first = [
        '[data-first]',
        'input:not([type=hidden]), textarea, select',
        `.${css.main ?? ''}:not(:disabled)`,
        'button:not(:disabled), a[href]',
      ]
        .map((each) => body?.querySelector<HTMLElement>(each))
        .find((each) => each);
      first?.focus();
    }
    if (!open && dialog.open) dialog.close();
  }, [open]);
  return (
    <dialog ref={ref} className={css.dialog} aria-labelledby={id} onClose={onClose}>
      <header className={css.dialogHead}>
        <h2 id={id}>{title}</h2>
        <Button look="plain" aria-label={closeText} onClick={onClose}>
          <X size={16} aria-hidden />
        </Button>
      </header>
      {open && <div className={css.dialogBody}>{children}</div>}
    </dialog>
  );
}

/** The buttons at the end of a dialog. */
export function DialogFoot({ children }: { children: ReactNode }) {
  return <div className={css.dialogFoot}>{children}</div>;
}
