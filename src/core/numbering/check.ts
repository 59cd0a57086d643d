/**
 * Check characters by ISO 7064 MOD 37,36: one letter or digit that finds every single slip and nearly every
 * swap of neighbours.
 */
const alphabet = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const size = alphabet.length;

/** The check character for the letters and digits of a text; other characters do not count. */
export function checkCharacter(text: string): string {
  let product = size;
  for (const character of text.toUpperCase()) {
    const value = alphabet.indexOf(character);
    if (value < 0) continue;
    const sum = (product + value) % size || size;
    product = (2 * sum) % (size + 1);
  }
  return alphabet[(size + 1 - product) % size] as string;
}
