/** Priced lines in the words in which they are compared. */
import type { SideLine } from '../core/quoting';
import { summarise } from './build-summary';
import { compiledVersion, versionById } from './models';
import type { QuotedLine } from './quote-pricing';

export const sideLines = (priced: readonly QuotedLine[]): Promise<SideLine[]> => Promise.all(priced.map((each) => sideLine(each)));

async function sideLine({ line, item, build, price }: QuotedLine): Promise<SideLine> {
  const choices = build ? summarise(compiledVersion(await versionById(build.modelVersionId ?? undefined)), build.outcome.values).map(({ row, name, value }) => ({ row, name, value })) : [];
  return {
    origin: line.origin, position: line.position, name: item.name, partNumber: build?.outcome.partNumber ?? line.sku, quantity: line.quantity, counts: !line.alternative && !line.optional,
    unitNet: price.unitNet, net: price.net, choices,
  };
}
