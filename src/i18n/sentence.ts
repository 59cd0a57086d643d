import { dateTime } from './format';
import { hasText, translator } from './texts';

/** The sentence for the code of a failure; times among its details are written in the person's way. */
export function sentence(
  language: string,
  code: string,
  params: Record<string, string | number> = {},
): string {
  const t = translator(language);
  if (!hasText(code)) return t('input.invalid');
  // What a shape should be is itself one of the sentences.
  if (code === 'model.shape' && typeof params.what === 'string' && hasText(params.what))
    return t(params.what, params);
  const said: Record<string, string | number> = { ...params };
  // What is wrong with one of several lines is one of the sentences, too.
  if (code === 'line.of' && typeof params.code === 'string')
    said.what = sentence(language, params.code, params);
  if (typeof params.at === 'string') said.at = dateTime(params.at, language);
  if (typeof params.roles === 'string')
    said.roles = params.roles
      .split(', ')
      .map((role) => t(`role.${role as 'manager'}`))
      .join(', ');
  return t(code, said);
}
