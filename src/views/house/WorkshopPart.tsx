import { useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { workshopInput, type HouseView, type WorkshopInput } from '../../contract';
import { ask } from '../api';
import { useSpeech } from '../speech';
import type { Keep } from './keep';
import { KeptForm } from './KeptForm';
import css from './house.module.css';

/** How models come to be published. */
export function WorkshopPart({ view, onKeep }: { view: HouseView; onKeep: Keep }) {
  const { t } = useSpeech();
  const form = useForm<WorkshopInput>({
    resolver: yupResolver(workshopInput as never),
    defaultValues: view.workshop,
  });
  return (
    <KeptForm
      {...{ form, view, onKeep }}
      of={({ workshop }) => workshop}
      send={(input) => ask('PUT /house/workshop', { input })}
    >
      <label className={css.tick}>
        <input type="checkbox" {...form.register('secondEyes')} /> {t('house.secondEyes')}
      </label>
      <p className={css.quiet}>{t('house.secondEyesHint')}</p>
    </KeptForm>
  );
}
