/** What the catalogue tells of the items of a model. */
import type { DraftFacts } from '../../contract';
import { propertiesOf } from '../../core/items';
import { broughtBy, factsOf, takeFacts, edited, type ToldItem } from '../../core/modelling';
import type { ModelDocument } from '../../core/model';
import { familiesIn } from '../items/kept';
import { done, type Result } from '../kernel/failure';
import { reference, type Reference } from '../settings/reference-data';
import { openDraft } from './draft-row';

/** What is told of the items that a draft brings, as it is stored. */
export async function draftFacts(id: string): Promise<Result<DraftFacts>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const known = await reference();
  const families = familiesIn(known);
  const facts: DraftFacts = { families: {}, items: {} };
  for (const sku of broughtBy(found.value.document)) {
    const item = known.items.get(sku);
    if (!item) continue;
    facts.families[item.family] ??= propertiesOf(families, item.family);
    facts.items[sku] = { family: item.family, name: item.name, values: { ...item.properties } };
  }
  return done(facts);
}

/** Properties that a model has at most. */
const mostFacts = 50;

/** A document of items with all that the catalogue tells of them. */
export function withFacts(known: Reference, document: ModelDocument): ModelDocument {
  const families = familiesIn(known);
  const told = new Map(
    broughtBy(document).flatMap((sku): [string, ToldItem][] => {
      const item = known.items.get(sku);
      return item
        ? [[sku, { properties: propertiesOf(families, item.family), values: item.properties }]]
        : [];
    }),
  );
  const facts = factsOf(document, told);
  const edit = takeFacts(document, facts, new Set(facts.columns.slice(0, mostFacts).map(({ id }) => id)));
  const after = edit && edited(document, edit);
  return after?.ok ? after.document : document;
}
