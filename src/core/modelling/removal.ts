/** What still uses parts that an edit would take away. */
import type { ModelDocument } from '../model';
import type { Edit } from './edit';
import { isSame, type Mentioned, type Named } from './named';
import type { PartAt } from './places';
import { namedAt } from './rename';
import { listAt } from './places';
import { walked } from './walk';

/** The parts that an edit takes away. */
function removedBy(edit: Edit): PartAt[] {
  if (edit.do === 'several') return edit.edits.flatMap(removedBy);
  return edit.do === 'remove' ? [edit.at] : [];
}

/** How the place of a part is written in the path of a mention. */
const pathOf = (at: PartAt): string => at.filter((_, index) => index % 2 === 1 || index === 0).join('.');

/**
 * Places that name something that is taken away, and stay themselves; of a row also those that name one of its
 * options. That its section shows it is no use.
 */
export function usesOfRemoved(document: ModelDocument, edit: Edit): Mentioned[] {
  const removed = removedBy(edit);
  if (removed.length === 0) return [];
  const named = removed.flatMap((at): Named[] => {
    const own = namedAt(at);
    const [list = '', id = ''] = at;
    const options =
      at.length === 2 ? listAt(document, [list, id, list === 'context' ? 'values' : 'options']) : [];
    return [
      ...(own ? [own] : []),
      ...options.map((option): Named => ({ is: 'option', of: id, id: option.id })),
    ];
  });
  const gone = removed.map(pathOf);
  const found: Mentioned[] = [];
  walked(document, (mentioned) => {
    const { path } = mentioned;
    const within = gone.some((each) => path === each || path.startsWith(`${each}.`));
    if (!within && !path.startsWith('sections.') && named.some((each) => isSame(each, mentioned.named)))
      found.push(mentioned);
    return undefined;
  });
  return found;
}
