/** What an entry of the audit is about, as text. */

/** What changed as `name: before → after`, all else as `name: value`. */
export function detailsText({ from, to, ...rest }: Readonly<Record<string, unknown>>): string {
  const changed = isRecord(from) && isRecord(to) ? pairs(from, to) : [];
  const others =
    isRecord(from) && isRecord(to) ? rest : { ...rest, ...given('from', from), ...given('to', to) };
  return [...Object.entries(others).map(([name, value]) => `${name}: ${plain(value)}`), ...changed].join(
    ', ',
  );
}

const pairs = (from: Record<string, unknown>, to: Record<string, unknown>): string[] =>
  [...new Set([...Object.keys(from), ...Object.keys(to)])].map(
    (name) => `${name}: ${plain(from[name])} → ${plain(to[name])}`,
  );

const given = (name: string, value: unknown): Record<string, unknown> =>
  value === undefined ? {} : { [name]: value };

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function plain(value: unknown): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.map(plain).join(', ');
  if (isRecord(value))
    return `(${Object.entries(value)
      .map(([name, each]) => `${name} ${plain(each)}`)
      .join(', ')})`;
  return JSON.stringify(value);
}
