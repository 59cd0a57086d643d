import { Check } from 'lucide-react';
import { granted, permissions, roles } from '../../contract';
import { useSpeech } from '../speech';
import css from './people.module.css';

/** What each role may: a set of named permissions. */
export function Roles() {
  const { t } = useSpeech();
  return (
    <div className={css.roles} role="region" aria-label={t('people.tab.roles')} tabIndex={0}>
      <table>
        <thead>
          <tr>
            <th scope="col">{t('people.mayDo')}</th>
            {roles.map((role) => (
              <th key={role} scope="col">
                {t(`role.${role}`)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {permissions.map((permission) => (
            <tr key={permission}>
              <th scope="row">{t(`people.may.${permission}`)}</th>
              {roles.map((role) => {
                const has = granted[role].includes(permission);
                return (
                  <td key={role}>
                    {has ? (
                      <Check size={16} role="img" aria-label={t('people.yes')} />
                    ) : (
                      <span className={css.no} role="img" aria-label={t('people.no')}>
                        ·
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className={css.quiet}>{t('people.rolesHint')}</p>
    </div>
  );
}
