import css from './ui.module.css';

/** What is told to who does not see it happen; each new text is said once. */
export function Said({ text }: { text: string }) {
  return (
    <p role="status" className={css.hidden} data-said>
      {text}
    </p>
  );
}
