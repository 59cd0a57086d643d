import { useEffect, useState } from 'react';
import { classes } from './classes';
import css from './ui.module.css';

interface Toast {
  id: number;
  text: string;
  bad: boolean;
}

const event = 'iunctura:say';
const seconds = 6;
let count = 0;

/** Says something at the corner of the page; `bad` for what was refused. */
export function say(text: string, bad = false): void {
  window.dispatchEvent(new CustomEvent<Toast>(event, { detail: { id: ++count, text, bad } }));
}

/** Shows what is said, for a while; announced to screen readers. */
export function Toaster() {
  const [toasts, setToasts] = useState<Toast[]>([]);
  useEffect(() => {
    const add = (given: Event) => {
      const toast = (given as CustomEvent<Toast>).detail;
      setToasts((all) => [...all.slice(-2), toast]);
      setTimeout(() => setToasts((all) => all.filter((each) => each.id !== toast.id)), seconds * 1000);
    };
    window.addEventListener(event, add);
    return () => window.removeEventListener(event, add);
  }, []);
  return (
    <div className={css.toasts} role="status" aria-live="polite">
      {toasts.map((toast) => (
        <div key={toast.id} className={classes(css.toast, toast.bad && css.toastError)}>
          {toast.text}
        </div>
      ))}
    </div>
  );
}
