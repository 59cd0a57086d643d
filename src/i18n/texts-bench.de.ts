import { benchDe } from './bench.de';
import { panelsDe } from './panels.de';
import { pricesDe } from './prices.de';

/** German texts of the Bench. */
export const texts = {
  ...benchDe,
  ...panelsDe,
  ...pricesDe,
};
