/** Another id for a part, in every formula and place that names it; and all that names one. */
import { feelWords, ownNamesIn } from '../formula';
import type { ModelDocument } from '../model';
import { takenIn, type Edited, type EditProblem } from './edit';
import { isSame, rowsInside, type Mentioned, type Named } from './named';
import { partAt, withPart, type PartAt } from './places';
import { walked } from './walk';

const rows = new Set(['context', 'features', 'parameters', 'calculations']);
const others: Readonly<Record<string, 'section' | 'rule' | 'price' | 'view' | 'layer'>> = {
  sections: 'section',
  rules: 'rule',
  prices: 'price',
  'drawing.views': 'view',
  'drawing.layers': 'layer',
};

/** What the id of a part names; null where nothing names such a part. */
export function namedAt(at: PartAt): Named | null {
  const [list = '', id = '', , inner] = at;
  if (inner !== undefined) return { is: 'option', of: id, id: inner };
  if (rows.has(list)) return { is: 'row', id };
  const is = others[list];
  return is ? { is, id } : null;
}

/** Everything that names something. */
export function usesOf(document: ModelDocument, named: Named): Mentioned[] {
  const found: Mentioned[] = [];
  walked(document, (mentioned) => {
    if (isSame(mentioned.named, named)) found.push(mentioned);
    return undefined;
  });
  return found;
}

const isId = /^[a-z][A-Za-z0-9]{0,39}$/;
/** As they stand in a drawing file. */
const isLayer = /^[A-Z][A-Z0-9]{0,29}$/;
/** What formulas have for themselves. */
const isReserved = (id: string): boolean => feelWords.has(id) || id === 'item' || id === 'today';

/**
 * Gives a part another id. It is refused where the id is used already, where something names it that is not there
 * (which would then mean this part), and where a formula has it for a name of its own.
 */
export function renamed(document: ModelDocument, at: PartAt, to: string): Edited {
  const id = at.at(-1) ?? '';
  const problem = problemOf(document, at, to);
  if (problem) return { ok: false, problem };
  const old = namedAt(at);
  const rewritten =
    old === null ? document : walked(document, ({ named }) => (isSame(named, old) ? to : undefined));
  return {
    ok: true,
    document: withPart(rewritten, at, (part) => ({ ...part, id: to })),
    inverse: { do: 'rename', at: [...at.slice(0, -1), to], to: id },
  };
}

function problemOf(document: ModelDocument, at: PartAt, to: string): EditProblem | null {
  const list = at.slice(0, -1);
  if (at.length === 0 || !partAt(document, at))
    return { code: 'edit.missing', params: { what: at.join('.') } };
  const old = namedAt(at);
  if (!(old?.is === 'layer' ? isLayer : isId).test(to) || (old?.is === 'row' && isReserved(to)))
    return { code: 'edit.badId', params: { id: to } };
  if (to !== at.at(-1) && takenIn(document, list, to)) return { code: 'edit.taken', params: { id: to } };
  if (old === null || to === at.at(-1)) return null;
  const reached = reachedBy(document, old);
  if (reached !== undefined) return { code: 'edit.reaches', params: { id: old.id, model: reached } };
  const [dangling] = usesOf(document, { ...old, id: to });
  if (dangling) return { code: 'edit.mentioned', params: { id: to, where: dangling.path } };
  const capturing = old.is === 'row' ? capturedBy(document, old, to) : undefined;
  return capturing === undefined ? null : { code: 'edit.captured', params: { id: to, where: capturing } };
}

/**
 * The model inside that takes its own from this part by its id: under another it would no longer. Inputs of the
 * context are taken by every model inside, rows where they reach down.
 */
function reachedBy(
  { context, features, parameters, library }: ModelDocument,
  old: Named,
): string | undefined {
  const id = old.is === 'option' ? old.of : old.id;
  const isInput = context.some((input) => input.id === id);
  const reaches = [...features, ...parameters].some((row) => row.id === id && row.reachesDown);
  if ((old.is !== 'row' && old.is !== 'option') || !(isInput || reaches)) return undefined;
  return library?.models?.find((model) =>
    [...(isInput ? model.context : [...model.features, ...model.parameters])].some((row) => row.id === id),
  )?.id;
}

/** Where a new name would be heard as something else: a name of the formula's own, or a row of what is inside. */
function capturedBy(document: ModelDocument, old: Named, to: string): string | undefined {
  const inner = [...rowsInside(document).values()].some((names) => names.has(to));
  return usesOf(document, old).find(
    ({ source }) =>
      source !== undefined && (ownNamesIn(source).includes(to) || (inner && source.includes('['))),
  )?.path;
}
