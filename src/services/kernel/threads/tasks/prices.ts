/** What builds cost, and how they are made. */
import { priceBuild, costOf, type BuildPrice, type Offer } from '../../../../core/pricing';
import { leadDays, making, type Making } from '../../../../core/production';
import { specialFacts, specialTariff, type SpecialPart } from '../../../../core/builds';
import { summarise, type SummaryRow } from '../../../builds/build-summary';
import type { Built, Kept } from './kept';

/** Tasks over prices, times and materials. */
export const priceTasks = (kept: Kept) => ({
  /** What builds list at, and what they cost. */
  offers: ({
    tariff,
    builds,
  }: {
    tariff: string;
    builds: readonly (Built & { special: readonly SpecialPart[] })[];
  }): { offer: Offer; parts: BuildPrice }[] =>
    builds.map(({ version, values, special }) => {
      const model = kept.model(version);
      const own = specialTariff(kept.tariff(tariff), special);
      const parts = priceBuild(model, values, own);
      const cost = costOf(making(model, values), parts.parts, own);
      return {
        offer: { is: 'build', parts: parts.parts, unpriced: parts.unpriced, ...(cost ? { cost } : {}) },
        parts,
      };
    }),

  /** Working days until what builds are made of can be there; null where that is not known. */
  leads: ({
    facts,
    builds,
  }: {
    facts: string;
    builds: readonly (Built & { special: readonly SpecialPart[] })[];
  }): (number | null)[] =>
    builds.map(({ version, values, special }) =>
      leadDays(kept.model(version), values, specialFacts(kept.facts(facts), special)),
    ),

  /** How builds are made. */
  making: (builds: readonly Built[]): (Making & { words: SummaryRow[] })[] =>
    builds.map(({ version, values }) => ({
      ...making(kept.model(version), values),
      words: summarise(kept.model(version), values),
    })),
});
