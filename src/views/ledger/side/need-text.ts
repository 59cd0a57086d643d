import type { SignOffsOfQuote } from '../../../contract';
import { own, type Translate } from '../../../i18n';

/** What a role must sign, or has signed: lines by their positions, and what else by name. */
export function needText(
  { role, lines, policies, held }: SignOffsOfQuote['needs'][number],
  t: Translate,
  language: string,
): string {
  const who = t(`role.${role as 'manager'}`);
  const names = policies.map((name) => own(name, language)).join(', ');
  const texts = [
    ...(lines.length > 0
      ? [
          t(held ? 'signOff.held' : 'signOff.need', {
            role: who,
            count: lines.length,
            lines: lines.join(', '),
          }),
        ]
      : []),
    ...(names ? [t(held ? 'signOff.heldFor' : 'signOff.needFor', { role: who, what: names })] : []),
  ];
  return texts.join(' ');
}
