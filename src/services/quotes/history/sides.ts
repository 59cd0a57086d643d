/** Priced lines in the words in which they are compared. */
import type { SideLine } from '../../../core/quotes';
import { askEngine } from '../../kernel/engines';
import type { QuotedLine } from '../figures/quote-pricing';

/** Lines as they are compared, builds in words. */
export async function sideLines(priced: readonly QuotedLine[]): Promise<SideLine[]> {
  const builds = priced.flatMap(({ build }) => (build ? [build] : []));
  const words =
    builds.length === 0
      ? []
      : await askEngine(
          'words',
          builds.map((build) => ({ version: build.modelVersionId, values: build.outcome.values })),
        );
  const wordsOf = new Map(builds.map((build, index) => [build.id, words[index]]));
  return priced.map(({ line, item, build, price }) => ({
    origin: line.origin,
    position: line.position,
    name: item.name,
    partNumber: build?.outcome.partNumber ?? line.sku,
    quantity: line.quantity,
    counts: !line.alternative && !line.optional,
    unitNet: price.unitNet,
    net: price.net,
    choices: build
      ? (wordsOf.get(build.id)?.rows ?? []).map(({ row, name, value }) => ({ row, name, value }))
      : [],
  }));
}
