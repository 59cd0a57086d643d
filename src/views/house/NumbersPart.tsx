import { useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { numbersInput, type HouseView, type NumbersInput } from '../../contract';
import { numberBy, rangeProblem } from '../../core/quotes';
import { hasText } from '../../i18n';
import { Field } from '../../ui';
import { ask } from '../api';
import { useSpeech } from '../speech';
import type { Keep } from './keep';
import { KeptForm } from './KeptForm';
import css from './house.module.css';

interface Props {
  view: HouseView;
  onKeep: Keep;
}

const ranges = ['quote', 'order', 'workOrder'] as const;

/** How quotes, orders and work orders are numbered, each with the number that comes next. */
export function NumbersPart({ view, onKeep }: Props) {
  const { t } = useSpeech();
  const form = useForm<NumbersInput>({
    resolver: yupResolver(numbersInput as never),
    mode: 'onChange',
    defaultValues: view.numbers,
  });
  return (
    <KeptForm
      {...{ form, view, onKeep }}
      of={({ numbers }) => numbers}
      send={(input) => ask('PUT /house/numbers', { input })}
    >
      <div className={css.sides}>
        <div className={css.ranges}>
          {ranges.map((range) => (
            <Range key={range} {...{ range, form, view }} />
          ))}
        </div>
        <div className={css.aside}>
          <h2 className={css.legend}>{t('house.pattern.signs')}</h2>
          <dl className={css.signs}>
            {(['yy', 'yyyy', 'market', 'zeros', 'order'] as const).map((sign) => (
              <div key={sign}>
                <dt>{`{${sign === 'zeros' ? '0000' : sign}}`}</dt>
                <dd>{t(`house.pattern.${sign}`)}</dd>
              </div>
            ))}
          </dl>
          <p className={css.quiet}>{t('house.gapless')}</p>
        </div>
      </div>
    </KeptForm>
  );
}

/** The pattern of one kind of numbers, with what comes of it. */
function Range({
  range,
  form,
  view,
}: {
  range: (typeof ranges)[number];
  form: UseFormReturn<NumbersInput>;
  view: HouseView;
}) {
  const { t } = useSpeech();
  const said = useWatch({ control: form.control }) as NumbersInput;
  const { ref, ...rest } = form.register(`${range}.pattern`);
  const problems = form.formState.errors[range];
  const code = problems?.pattern?.message ?? problems?.message;
  return (
    <fieldset className={css.range}>
      <legend className={css.legend}>{t(`house.range.${range}`)}</legend>
      <Field
        label={t('house.pattern.label')}
        ref={ref}
        spellCheck={false}
        error={code === undefined ? undefined : hasText(code) ? t(code) : code}
        {...rest}
      />
      <p className={css.next}>{nextOf(range, said, view, t)}</p>
      {range !== 'workOrder' && (
        <label className={css.check}>
          <input type="checkbox" {...form.register(`${range}.yearly`)} />
          {t('house.pattern.yearly')}
        </label>
      )}
    </fieldset>
  );
}

/** What comes next as it is kept, or such as it would be by what is typed. */
function nextOf(
  range: (typeof ranges)[number],
  said: NumbersInput,
  { numbers, next, home: market }: HouseView,
  t: ReturnType<typeof useSpeech>['t'],
): string {
  const { pattern, yearly } = said[range];
  if (rangeProblem({ pattern, yearly }, range === 'workOrder' ? 'order' : 'year') !== null) return '';
  if (range !== 'workOrder' && pattern === numbers[range].pattern && yearly === numbers[range].yearly)
    return t('house.pattern.next', { number: next[range] });
  const year = new Date().getFullYear();
  const order = numberBy(said.order.pattern, { year, count: 42, market });
  return t('house.pattern.such', {
    number: numberBy(pattern, { year, count: range === 'workOrder' ? 1 : 42, market, order }),
  });
}
