/** Where in the document a problem is: paths by ids, also where the shape of a document was wrong and told by places. */
import type { ModelDocument } from '../../core/model';
import type { TextKey } from '../../i18n';
import type { InWords } from '../speech';
import { partName } from './change-words';

/** `rules[3].reason.de` and `rules.pitRamps.reason.de` are the same place. */
export function steps(path: string, document: ModelDocument): string[] {
  const parts = path.split(/[.[\]]+/).filter((part) => part !== '');
  let held: unknown = document;
  return parts.map((part) => {
    held = Array.isArray(held)
      ? (held as unknown[])[Number(part)]
      : (held as Record<string, unknown> | undefined)?.[part];
    const id = (held as { id?: unknown } | undefined)?.id;
    return /^\d+$/.test(part) && typeof id === 'string' ? id : part;
  });
}

/** A place in words: the list, and what the part is called, as "Rules: pitRamps". */
export function pathName(path: string, document: ModelDocument, words: InWords): string {
  const [list = '', id, inner] = steps(path, document);
  const title = words.t(`draft.list.${list}` as TextKey);
  if (id === undefined) return title;
  const within = list === 'features' && inner !== undefined && isOption(document, id, inner);
  const name = partName(document, within ? [list, id, 'options', inner] : [list, id], words);
  return `${title}: ${name}`;
}

const isOption = ({ features }: ModelDocument, feature: string, option: string): boolean =>
  features.some(({ id, options }) => id === feature && options.some((each) => each.id === option));
