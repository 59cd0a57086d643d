import css from './mortise.module.css';

/** The empty notch of what is still open. */
export function Mortise() {
  return (
    <svg className={css.mortise} viewBox="0 0 26 9" aria-hidden>
      <path d="M0,0.6 h7 l-3,7.8 h18 l-3,-7.8 h7" />
    </svg>
  );
}
