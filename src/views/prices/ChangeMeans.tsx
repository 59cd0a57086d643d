import { useEffect, useRef, useState } from 'react';
import { Upload } from 'lucide-react';
import type { PriceChangeView, PricesView } from '../../contract';
import { own } from '../../i18n';
import { Button, Field, say, Select } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { sendFile } from '../parts/bring/sending';
import { JobHere } from '../parts/jobs/JobHere';
import { useJob } from '../parts/jobs/useJob';
import { useSpeech } from '../speech';
import type { Shown } from './change-rows';
import { FormulaField, isFormula } from './FormulaField';
import css from './change.module.css';

interface Props {
  view: PriceChangeView;
  prices: PricesView;
  shown: Shown;
  list: string;
  /** Something typed is not kept yet: what is made would pass it over. */
  unkept: boolean;
  onShow: (more: Partial<Shown>) => void;
  onTook: (answer: Answer<PriceChangeView>) => boolean;
}

/** By what rows of a price change are found and made: list, family and words, a formula, a sheet. */
export function ChangeMeans({ view, prices, shown, list, unkept, onShow, onTook }: Props) {
  const { t, language } = useSpeech();
  const [formula, setFormula] = useState('');
  const [typedToo, setTypedToo] = useState(false);
  const [busy, setBusy] = useState(false);
  const { head, lists } = view;
  const make = async (): Promise<void> => {
    setBusy(true);
    const answer = await ask('POST /prices/changes/{id}/formula', {
      at: { id: head.id },
      input: {
        version: head.version,
        list,
        formula,
        family: shown.family ?? null,
        find: shown.find,
        skus: null,
        typedToo,
      },
    });
    setBusy(false);
    if (!answer.ok) {
      say(sentences(answer.failures, t('request.failed')), true);
      return;
    }
    const { made, left, stuck, change } = answer.value;
    onTook({ ok: true, value: change });
    say(
      [
        t('change.made', { made }),
        ...(left > 0 ? [t('change.left', { count: left })] : []),
        ...stuck.map(({ why, count, skus }) =>
          t(`change.stuck.${why}` as 'change.stuck.method', { count, skus: skus.join(', ') }),
        ),
      ].join(' '),
    );
  };
  return (
    <div className={css.means}>
      <Select
        label={t('change.list')}
        value={shown.list ?? ''}
        options={[
          { value: '', text: t('change.showAll') },
          ...lists.map(({ code }) => ({ value: code, text: code })),
        ]}
        onChange={(event) => onShow({ list: event.target.value || undefined, page: 0 })}
      />
      <Select
        label={t('prices.family')}
        value={shown.family ?? ''}
        options={[
          { value: '', text: t('prices.allFamilies') },
          ...prices.families.map(({ code, name }) => ({ value: code, text: own(name, language) })),
        ]}
        onChange={(event) => onShow({ family: event.target.value || undefined, page: 0 })}
      />
      <div className={css.find}>
        <Field
          label={t('prices.find')}
          value={shown.find}
          maxLength={100}
          onChange={(event) => onShow({ find: event.target.value, page: 0 })}
        />
      </div>
      {view.may.edit && (
        <>
          <div className={css.formula}>
            <FormulaField
              label={`${t('prices.formula')} (${list})`}
              value={formula}
              lists={lists}
              onText={setFormula}
            />
          </div>
          {view.sums.typed > 0 && (
            <label className={css.check}>
              <input
                type="checkbox"
                checked={typedToo}
                onChange={(event) => setTypedToo(event.target.checked)}
              />
              {t('change.typedToo')}
            </label>
          )}
          <Button
            disabled={busy || unkept || !isFormula(formula, language, lists)}
            onClick={() => void make()}
          >
            {t('change.apply')}
          </Button>
          <SheetIn view={view} list={list} disabled={unkept} onTook={onTook} />
        </>
      )}
    </div>
  );
}

/** Takes a sheet in, as a job. */
function SheetIn({
  view: { head },
  list,
  disabled,
  onTook,
}: {
  view: PriceChangeView;
  list: string;
  disabled: boolean;
  onTook: (answer: Answer<PriceChangeView>) => boolean;
}) {
  const { t } = useSpeech();
  const job = useJob();
  const input = useRef<HTMLInputElement>(null);
  const { state, outcome } = job.job ?? {};
  const { id } = head;
  useEffect(() => {
    if (state !== 'done') return;
    void ask('GET /prices/changes/{id}', { at: { id } }).then(onTook);
    const { rows = 0, wrong = 0, unknown = '' } = outcome ?? {};
    say(
      [
        t('change.sheetCame', { rows, wrong }),
        ...(unknown === '' ? [] : [t('change.sheetUnknown', { titles: unknown })]),
      ].join(' '),
      Number(wrong) > 0,
    );
    job.forget();
    // oxlint-disable-next-line react/exhaustive-deps -- it is told once, when it has ended
  }, [state]);
  const take = async (file: File): Promise<void> => {
    const brought = await sendFile(file, () => undefined).answer;
    if (!brought.ok) {
      say(sentences(brought.failures, t('request.failed')), true);
      return;
    }
    const asked = await ask('POST /prices/changes/{id}/sheet', {
      at: { id },
      input: { version: head.version, file: brought.value.id, list },
    });
    if (asked.ok) await job.begin(ask('GET /jobs/{id}', { at: { id: asked.value.job } }));
    else say(sentences(asked.failures, t('request.failed')), true);
  };
  return (
    <>
      <Button look="plain" disabled={disabled || job.job !== null} onClick={() => input.current?.click()}>
        <Upload size={14} aria-hidden /> {t('prices.in')}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={t('prices.in')}
        accept=".xlsx,.csv"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) void take(file);
          target.value = '';
        }}
      />
      {state !== 'done' && <JobHere here={job} />}
    </>
  );
}
