/** Documents of earlier formats are read as those of today. */
import { expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { compileModel, compilePublished, movedOn, type ModelDocument } from '.';

/** A document as format 1 had it: another word for how quantities are counted. */
function asOfFormatOne(document: ModelDocument): unknown {
  const words = { '"line"': '"once"', '"typed"': '"own"', '{"every":1}': '"perParent"' };
  return JSON.parse(
    JSON.stringify(document)
      .replace(/"format":2/g, '"format":1')
      .replace(
        /"counts":("line"|"typed"|\{"every":1\})/g,
        (_, now: keyof typeof words) => `"grows":${words[now]}`,
      ),
  );
}

/** The gate with a quantity of each kind that format 1 had. */
function gate(): ModelDocument {
  const document = demoDocument('quarryGate');
  const features = document.features.map((feature) => ({
    ...feature,
    options: feature.options.map((option) =>
      typeof option.quantity === 'object' && option.quantity.counts === undefined
        ? { ...option, quantity: { ...option.quantity, counts: { every: 1 } } }
        : option,
    ),
  }));
  return { ...document, features };
}

it('moves a document of format 1 on, with the models inside it', () => {
  const document = gate();
  const old = asOfFormatOne(document);
  expect(JSON.stringify(old)).toContain('"grows":');
  expect(movedOn(old)).toEqual(document);
  expect(compileModel(old).ok).toBe(true);
  expect(compilePublished(movedOn(old) as ModelDocument).ok).toBe(true);
});

it('moves models on that a document of today names', () => {
  const document = gate();
  const { library } = asOfFormatOne(document) as ModelDocument;
  const mixed = { ...document, ...(library ? { library } : {}) };
  expect(movedOn(mixed)).toEqual(document);
});

it('leaves alone what is of today, of tomorrow, or no document', () => {
  const document = gate();
  expect(movedOn(document)).toBe(document);
  for (const given of [null, 3, 'x', [], {}, { format: 3 }, { format: 1, features: 7 }])
    expect(movedOn(given)).toEqual(
      given !== null && typeof given === 'object' && 'features' in given ? { format: 2, features: 7 } : given,
    );
  const result = compileModel({ ...document, format: 3 });
  expect(result.ok ? [] : result.problems.map(({ params }) => params['what'])).toContain('model.otherFormat');
});

it('refuses to count otherwise', () => {
  for (const counts of [
    'once',
    { every: 0 },
    { every: 1.5 },
    { every: 100_000 },
    { every: 2, more: 1 },
    {},
  ]) {
    const [row, ...rows] = gate().materials;
    expect(compileModel({ ...gate(), materials: [{ ...row, counts }, ...rows] }).ok).toBe(false);
  }
});
