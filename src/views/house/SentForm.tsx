import { useState, type ReactNode } from 'react';
import { Foot } from './Foot';
import css from './house.module.css';

interface Props {
  changed: boolean;
  /** Why it cannot be kept as it is. */
  wrong: string | undefined;
  /** Sends what stands there, and shows what came of it. */
  onKeep: () => Promise<void>;
  onBack: () => void;
  children: ReactNode;
}

/** A part of the house that is typed in a grid: kept as it stands there, or taken back. */
export function SentForm({ changed, wrong, onKeep, onBack, children }: Props) {
  const [busy, setBusy] = useState(false);
  return (
    <form
      noValidate
      className={css.form}
      onSubmit={(event) => {
        event.preventDefault();
        setBusy(true);
        void onKeep().finally(() => setBusy(false));
      }}
    >
      {children}
      <Foot changed={changed} busy={busy} wrong={changed ? wrong : undefined} onBack={onBack} />
    </form>
  );
}
