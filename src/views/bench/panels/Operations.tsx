import type { Making } from '../../../core/production';
import { number, own } from '../../../i18n';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import type { Words } from '../words';

/** How the build is made, step by step. */
export function Operations({ making, words }: { making: Making; words: Words }) {
  const { t, language } = useSpeech();
  return (
    <table className={shared.table}>
      <thead>
        <tr>
          <th scope="col">{t('bench.name')}</th>
          <th scope="col">{t('bench.centre')}</th>
          <th scope="col">{t('bench.instruction')}</th>
          <th scope="col" className={shared.figure}>
            {t('bench.setUp')}
          </th>
          <th scope="col" className={shared.figure}>
            {t('bench.run')}
          </th>
        </tr>
      </thead>
      <tbody>
        {making.operations.map((row) => (
          <tr key={row.row}>
            <td>
              {row.place === undefined ? '' : `${words.place(row.place) ?? ''}, `}
              {own(row.name, language)}
            </td>
            <td className={shared.code}>{row.centre}</td>
            <td>{own(row.text, language)}</td>
            <td className={shared.figure}>{number(row.setUp, language, 2)}</td>
            <td className={shared.figure}>{number(row.run, language, 2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
