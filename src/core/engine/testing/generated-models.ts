/**
 * Models of any size, the same for the same seed: for timing, and for trying answers against other solvers.
 */
import type { Feature, ModelDocument, Rule } from '../../model';

/** How large a generated model is; the same seed gives the same. */
export interface Size {
  features: number;
  options: number;
  rules: number;
  seed: number;
}

/** As large as a house would write. */
export const large: Size = { features: 300, options: 3_000, rules: 1_500, seed: 1 };
/** Larger than anybody writes. */
export const huge: Size = { features: 2_000, options: 20_000, rules: 10_000, seed: 2 };

/** Pseudo-random whole numbers below a bound. */
export function randomFrom(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) % below;
  };
}

const t = (text: string) => ({ en: text });

/**
 * Features with four to sixteen options, every tenth a multiple choice, two thirds with a default; rules tie
 * features near each other, now and then far ones. One build is drawn first and every rule lets it pass, so
 * that there is always something to sell.
 */
export function generatedModel({ features: count, options, rules: wanted, seed }: Size): ModelDocument {
  const random = randomFrom(seed);
  const sizes = Array.from({ length: count }, () => 4);
  for (let left = options - 4 * count; left > 0;) {
    const at = random(count);
    if ((sizes[at] as number) >= 16) continue;
    sizes[at] = (sizes[at] as number) + 1;
    left--;
  }
  const features = sizes.map((size, index): Feature => {
    const id = `f${String(index)}`;
    const many = index % 10 === 9;
    return {
      id,
      name: t(`Feature ${String(index)}`),
      least: many ? 0 : 1,
      most: many ? Math.min(size, 3) : 1,
      options: Array.from({ length: size }, (_, option) => ({
        id: `o${String(option)}`,
        code: option.toString(36).toUpperCase(),
        name: t(`Option ${String(option)}`),
      })),
      ...(!many && random(3) > 0 ? { usual: [`o${String(random(size))}`] } : {}),
    };
  });
  const drawn = sizes.map((size) => random(size));
  const one = (feature: number, option: number): string => {
    const id = `f${String(feature)}`;
    return (features[feature]?.most ?? 1) > 1
      ? `list contains(${id}, "o${String(option)}")`
      : `${id} = "o${String(option)}"`;
  };
  const size = (feature: number) => sizes[feature] as number;
  const near = (feature: number): number => {
    for (;;) {
      const other = random(20) === 0 ? random(count) : (feature + count - 8 + random(17)) % count;
      if (other !== feature) return other;
    }
  };
  const some = (feature: number, share: number): string => {
    const ids = Array.from({ length: size(feature) }, (_, option) => option).filter(
      (option) => option === drawn[feature] || random(10) < share,
    );
    return `f${String(feature)} in [${ids.map((option) => `"o${String(option)}"`).join(', ')}]`;
  };
  const single = (from: number): number => {
    let feature = from;
    while ((features[feature]?.most ?? 1) > 1) feature = (feature + 1) % count;
    return feature;
  };
  const hideable = new Set<number>();
  const rules = Array.from({ length: wanted }, (_, index): Rule => {
    const base = { id: `r${String(index)}`, reason: t(`Rule ${String(index)}`) };
    const a = random(count);
    const b = near(a);
    const kind = random(20);
    const other = (feature: number): number =>
      (random(size(feature) - 1) + 1 + (drawn[feature] as number)) % size(feature);
    if (kind < 8) return { ...base, kind: 'exclude', all: [one(a, other(a)), one(b, random(size(b)))] };
    if (kind < 14) {
      const target = single(b);
      if (target !== a)
        return { ...base, kind: 'require', when: one(a, random(size(a))), must: some(target, 5) };
    }
    if (kind < 17) {
      const [x, y] = [single(a), single((a + 1 + random(6)) % count)];
      if (x !== y) {
        const rows = Array.from({ length: 4 + random(8) }, () => [
          `"o${String(random(size(x)))}"`,
          random(4) === 0 ? '-' : `"o${String(random(size(y)))}"`,
        ]);
        const passes = (row: string[]) =>
          !(row[0] === `"o${String(drawn[x])}"` && (row[1] === '-' || row[1] === `"o${String(drawn[y])}"`));
        return {
          ...base,
          kind: 'table',
          of: [`f${String(x)}`, `f${String(y)}`],
          listed: 'forbidden',
          rows: rows.filter(passes).length > 0 ? rows.filter(passes) : [[`"o${String(other(x))}"`, '-']],
        };
      }
    }
    if (kind === 17 && !hideable.has(b) && b > a) {
      // Only what stands later in the model may hang on what stands before.
      hideable.add(b);
      return { ...base, kind: 'show', of: `f${String(b)}`, when: one(a, drawn[a] as number) };
    }
    const c = near(a);
    return {
      ...base,
      kind: 'exclude',
      all: [one(a, random(size(a))), one(b, random(size(b))), one(c, other(c))],
    };
  });
  const per = 12;
  return {
    format: 2,
    id: 'generated',
    name: t('Generated'),
    languages: ['en'],
    context: [],
    sections: Array.from({ length: Math.ceil(count / per) }, (_, index) => ({
      id: `s${String(index)}`,
      name: t(`Section ${String(index)}`),
      rows: features.slice(index * per, (index + 1) * per).map((feature) => feature.id),
    })),
    features,
    parameters: [],
    calculations: [],
    rules,
    numbering: [],
    prices: [],
    surcharges: [],
    materials: [],
    operations: [],
    figures: { more: [] },
  };
}
