import type { KeyboardEvent } from 'react';
import css from './ui.module.css';

interface Props<T extends string> {
  label: string;
  tabs: readonly { id: T; text: string }[];
  chosen: T;
  onChoose: (id: T) => void;
  /** Id of the panel that the tabs control. */
  panel: string;
}

/** Tabs of one panel, with the keys of the platform. */
export function Tabs<T extends string>({ label, tabs, chosen, onChoose, panel }: Props<T>) {
  const move = (event: KeyboardEvent<HTMLDivElement>): void => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    const index = tabs.findIndex((tab) => tab.id === chosen);
    const next = tabs[(index + step + tabs.length) % tabs.length];
    if (!next) return;
    onChoose(next.id);
    (event.currentTarget.children[tabs.indexOf(next)] as HTMLElement).focus();
  };
  return (
    <div role="tablist" aria-label={label} className={css.tabs} onKeyDown={move}>
      {tabs.map((tab) => (
        <button
          key={tab.id}
          type="button"
          role="tab"
          className={css.tab}
          aria-selected={tab.id === chosen}
          aria-controls={panel}
          tabIndex={tab.id === chosen ? 0 : -1}
          onClick={() => onChoose(tab.id)}
        >
          {tab.text}
        </button>
      ))}
    </div>
  );
}
