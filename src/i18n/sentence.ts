import { dateTime } from './format';
import { hasText, translator } from './index';

/** The sentence for the code of a failure; times among its details are written in the person's way. */
export function sentence(language: string, code: string, params: Record<string, string | number> = {}): string {
  const t = translator(language);
  if (!hasText(code)) return t('input.invalid');
  // What a shape should be is itself one of the sentences.
  if (code === 'model.shape' && typeof params.what === 'string' && hasText(params.what)) return t(params.what, params);
  return t(code, typeof params.at === 'string' ? { ...params, at: dateTime(params.at, language) } : params);
}
