import type { ReactNode } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { HouseView } from '../../contract';
import type { Answer } from '../api';
import { Foot } from './Foot';
import type { Keep } from './keep';
import css from './house.module.css';

interface Props<T extends FieldValues> {
  form: UseFormReturn<T>;
  view: HouseView;
  /** Where in the house the part stands. */
  of: (view: HouseView) => T;
  send: (input: T) => Promise<Answer<HouseView>>;
  onKeep: Keep;
  /** Why it cannot be kept as it is. */
  wrong?: string | undefined;
  /** What was typed was taken back. */
  onBack?: () => void;
  children: ReactNode;
}

/** A part of the house in a form: kept as it is typed, or taken back to what is kept. */
export function KeptForm<T extends FieldValues>({
  form,
  view,
  of,
  send,
  onKeep,
  wrong,
  onBack,
  children,
}: Props<T>) {
  const { isDirty, isSubmitting } = form.formState;
  const show = (now: HouseView): void => form.reset(of(now));
  return (
    <form
      noValidate
      className={css.form}
      onSubmit={(event) =>
        void form.handleSubmit(async (input) => {
          const answer = await onKeep(send(input));
          if (answer.ok) show(answer.value);
        })(event)
      }
    >
      {children}
      <Foot
        changed={isDirty}
        busy={isSubmitting}
        wrong={wrong}
        onBack={() => {
          show(view);
          onBack?.();
        }}
      />
    </form>
  );
}
