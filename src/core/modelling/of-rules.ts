/** Which rules a row has, and which rows a rule: what leads from one to the other while a model is made. */
import type { ModelDocument } from '../model';
import { walked } from './walk';

/** The rules that name a row or one of its options, in the order of the document. */
export function rulesOfRow(document: ModelDocument, row: string): string[] {
  const found = new Set<string>();
  each(document, (rule, named) => {
    if (named === row) found.add(rule);
  });
  return document.rules.flatMap(({ id }) => (found.has(id) ? [id] : []));
}

/** The rows that a rule names, by themselves or by an option. */
export function rowsOfRule(document: ModelDocument, rule: string): ReadonlySet<string> {
  const found = new Set<string>();
  const own = document.rules.filter(({ id }) => id === rule);
  each({ ...document, rules: own }, (_, named) => found.add(named));
  return found;
}

function each(document: ModelDocument, tell: (rule: string, row: string) => void): void {
  const { sections, features, parameters, calculations, context, library } = document;
  const { rules, id, format, name, languages } = document;
  const bare: ModelDocument = {
    ...{ id, format, name, languages, sections, features, parameters, calculations, context, rules },
    ...{ numbering: [], prices: [], surcharges: [], materials: [], operations: [], figures: { more: [] } },
    ...(library ? { library } : {}),
  };
  walked(bare, ({ named, path }) => {
    const [list, of] = path.split('.');
    if (list !== 'rules' || of === undefined) return undefined;
    if (named.is === 'row') tell(of, named.id);
    else if (named.is === 'option') tell(of, named.of);
    return undefined;
  });
}
