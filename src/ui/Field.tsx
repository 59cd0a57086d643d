import {
  useId,
  useImperativeHandle,
  useRef,
  type ChangeEvent,
  type InputHTMLAttributes,
  type Ref,
} from 'react';
import { useTypedBefore } from './useTypedBefore';
import css from './ui.module.css';

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  hint?: string | undefined;
  /** The sentence that says what is wrong and what to do. */
  error?: string | undefined;
  ref?: Ref<HTMLInputElement>;
}

/** A labelled input; its error is announced and stands right under it. */
export function Field({ label, hint, error, ref, ...rest }: Props) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  useImperativeHandle(ref, () => field.current as HTMLInputElement, []);
  useTypedBefore(field, typeof rest.value === 'string' ? rest.value : undefined, (target) =>
    rest.onChange?.({ target } as ChangeEvent<HTMLInputElement>),
  );
  const about = error ? `${id}-error` : hint ? `${id}-hint` : undefined;
  return (
    <div className={css.field}>
      <label className={css.label} htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        ref={field}
        className={css.input}
        aria-invalid={Boolean(error)}
        aria-describedby={about}
        {...rest}
      />
      {error ? (
        <p id={`${id}-error`} className={css.error} role="alert">
          {error}
        </p>
      ) : hint ? (
        <p id={`${id}-hint`} className={css.hint}>
          {hint}
        </p>
      ) : null}
    </div>
  );
}
