/** A build in words, in every language of its model. */
import type { CompiledModel, PlainValue, Texts, Values } from '../core/model';

export interface SummaryRow {
  row: string;
  section: string;
  name: Texts;
  value: Texts;
}

const yes: Texts = { en: 'yes', de: 'ja' };
const no: Texts = { en: 'no', de: 'nein' };

/** What was chosen, in the order of the sheet. Left out: rows without a value, yes/no rows with no, and the option "none". */
export function summarise(model: CompiledModel, values: Values): SummaryRow[] {
  const { document } = model;
  return document.sections.flatMap((section) =>
    section.rows.flatMap((id): SummaryRow[] => {
      const value = values[id];
      const found = value === undefined || value === null ? undefined : valueText(model, id, value);
      return found ? [{ row: id, section: section.id, ...found }] : [];
    }),
  );
}

function valueText({ document }: CompiledModel, id: string, value: Exclude<PlainValue, null>): { name: Texts; value: Texts } | undefined {
  const each = (text: (language: string) => string): Texts => Object.fromEntries(document.languages.map((language) => [language, text(language)]));
  const feature = document.features.find((one) => one.id === id);
  if (feature) {
    const taken = feature.options.filter((option) => (Array.isArray(value) ? value.includes(option.id) : value === option.id));
    if (taken.length === 0 || (taken.length === 1 && taken[0]?.id === 'none')) return undefined;
    return { name: feature.name, value: each((language) => taken.map((option) => option.name[language] ?? option.id).join(', ')) };
  }
  const parameter = document.parameters.find((one) => one.id === id);
  if (!parameter || value === false) return undefined;
  if (parameter.type === 'yesno') return { name: parameter.name, value: each((language) => (value === true ? (yes[language] ?? 'yes') : (no[language] ?? 'no'))) };
  const unit = parameter.unit ? ` ${parameter.unit}` : '';
  return { name: parameter.name, value: each((language) => `${language === 'de' ? String(value).replace('.', ',') : String(value)}${unit}`) };
}
