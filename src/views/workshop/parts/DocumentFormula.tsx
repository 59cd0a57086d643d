import { useState } from 'react';
import type { FeelType } from '../../../core/formula';
import { valueAt, type Edit } from '../../../core/modelling';
import { FormulaField } from '../../parts/formula-field/FormulaField';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { useScope } from '../session/useScope';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  /** The name of the value in the document. */
  name: string;
  label: string;
  wanted: FeelType;
  /** What goes with it where nothing stands in it any more; itself where it is not said. */
  whole?: string;
}

/** A formula of the document itself, kept by Enter or when it is left. */
export function DocumentFormula({ draft, name, label, wanted, whole = name }: Props) {
  const { language } = useSpeech();
  const { scope, nameOf } = useScope(draft.document, language);
  const value = valueAt(draft.document as unknown as Readonly<Record<string, unknown>>, name);
  const kept = typeof value === 'string' ? value : '';
  const [typed, setTyped] = useState<{ of: string; text: string } | null>(null);
  const keep = (source = typed?.of === kept ? typed.text : kept): void => {
    const text = source.trim();
    setTyped(null);
    if (text === kept) return;
    const edit: Edit =
      text === '' ? { do: 'set', at: [], name: whole } : { do: 'set', at: [], name, value: text };
    draft.session.edit(edit);
  };
  return (
    <div
      className={css.formula}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) keep();
      }}
    >
      <FormulaField
        label={label}
        value={typed?.of === kept ? typed.text : kept}
        scope={scope}
        nameOf={nameOf}
        wanted={wanted}
        onChange={(text) => setTyped({ of: kept, text })}
        onEnter={keep}
      />
    </div>
  );
}
