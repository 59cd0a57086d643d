import type { WalkStep } from '../../core/pricing';
import { own, type Translate } from '../../i18n';

/** A step of the walk by what it is and who granted it. */
export function stepName(step: Pick<WalkStep, 'kind' | 'name'>, t: Translate, language: string): string {
  const named = typeof step.name === 'object' ? own(step.name, language) : '';
  switch (step.kind) {
    case 'surcharge':
      return t('walk.surcharge', { name: named });
    case 'inside':
      return named ? `${t('walk.inside')}: ${named}` : t('walk.inside');
    case 'agreement':
    case 'quantity':
    case 'promotion':
      return named || t(`walk.${step.kind}`);
    default:
      return t(`walk.${step.kind}`);
  }
}
