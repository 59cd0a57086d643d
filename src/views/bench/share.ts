/**
 * What is equal stays the same object: a picture comes anew from the worker after each decision, but most rows show what they showed,
 * and a row whose state is the same object need not be drawn again.
 */
export function share<T extends object>(before: Readonly<Record<string, T>>, after: Readonly<Record<string, T>>): Record<string, T> {
  const shared: Record<string, T> = {};
  for (const [key, value] of Object.entries(after)) {
    const was = before[key];
    shared[key] = was !== undefined && written(was) === written(value) ? was : value;
  }
  return shared;
}

const texts = new WeakMap<object, string>();

function written(value: object): string {
  const known = texts.get(value);
  if (known !== undefined) return known;
  const text = JSON.stringify(value);
  texts.set(value, text);
  return text;
}
