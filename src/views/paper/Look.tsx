import { Select } from '../../ui';
import { own } from '../../i18n';
import { useSpeech } from '../speech';
import type { Paper } from './session/usePaper';
import css from './paper.module.css';

/** From which template the document began, its language and its paper. */
export function Look({ paper }: { paper: Paper }) {
  const { t, language } = useSpeech();
  const { composition, session, view } = paper;
  const { templates, mayEdit } = view;
  const known = templates.some(({ code }) => code === composition.template);
  return (
    <div className={css.look}>
      <Select
        label={t('composer.template')}
        disabled={!mayEdit}
        value={composition.template}
        options={[
          ...(known
            ? []
            : [{ value: composition.template, text: composition.template || t('composer.noTemplate') }]),
          ...templates.map(({ code, content }) => ({ value: code, text: own(content.name, language) })),
        ]}
        onChange={(event) => {
          const template = templates.find(({ code }) => code === event.target.value);
          if (template) session.take(template);
        }}
      />
      <Select
        label={t('composer.language')}
        disabled={!mayEdit}
        value={composition.language}
        options={(['en', 'en-US', 'de'] as const).map((value) => ({
          value,
          text: t(`composer.languages.${value === 'en-US' ? 'enUS' : value}`),
        }))}
        onChange={(event) => {
          const chosen = event.target.value as 'en' | 'en-US' | 'de';
          session.change((now) => ({ ...now, language: chosen }), null);
        }}
      />
      <Select
        label={t('composer.paper')}
        disabled={!mayEdit}
        value={composition.paper}
        options={(['A4', 'letter'] as const).map((value) => ({ value, text: t(`composer.papers.${value}`) }))}
        onChange={(event) => {
          const chosen = event.target.value as 'A4' | 'letter';
          session.change((now) => ({ ...now, paper: chosen }), null);
        }}
      />
    </div>
  );
}
