/** Where in the document a problem is: paths by ids, also where the shape of a document was wrong and told by places. */
import type { ModelDocument } from '../../core/model';

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
