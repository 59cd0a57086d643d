/** Which keys a place has. */
import { keysIn, type TextKey } from '../../i18n';
import { type Place } from './places';

const everywhere: [string, TextKey][] = [
  ['Ctrl K', 'keys.search'],
  ['Alt 1 – 4', 'keys.places'],
  ['?', 'keys.help'],
];
const onBench: [string, TextKey][] = [
  ['n', 'keys.next'],
  ['p', 'keys.previous'],
  ['/  F3', 'keys.find'],
  ['A … Z', 'keys.type'],
  ['← →', 'keys.move'],
  ['↑ ↓', 'keys.step'],
  ['Enter', 'keys.take'],
  ['1 – 9', 'keys.wayOut'],
  ['F1', 'keys.helpRow'],
  ['F2', 'keys.whyKey'],
  ['F4', 'keys.keep'],
  ['F6', 'keys.fold'],
  ['F7', 'keys.variantsKey'],
  ['[ ]', 'keys.otherVariant'],
  ['F8', 'keys.bestKey'],
  ['F9', 'keys.units'],
  ['Ctrl V', 'keys.paste'],
  ['Ctrl Z', 'keys.undo'],
  ['Ctrl ⇧ Z', 'keys.redo'],
  ['Ctrl Enter', 'keys.put'],
  ['Esc', 'keys.leave'],
];
const inLedger: [string, TextKey][] = [
  ['Enter', 'keys.edit'],
  ['F2', 'keys.editCell'],
  ['↑ ↓', 'keys.column'],
  ['← →', 'keys.row'],
  ['Home  End', 'keys.rowEnds'],
  ['Ctrl Home  Ctrl End', 'keys.ends'],
  ['PgUp  PgDn', 'keys.page'],
  ['Alt ↑ ↓', 'keys.moveLine'],
  ['Ctrl D', 'keys.copyLine'],
  ['Ctrl Z', 'keys.undo'],
  ['Ctrl Y', 'keys.redo'],
  ['Ctrl Space', 'keys.markLine'],
  ['Alt → ←', 'keys.parts'],
  ['Esc', 'keys.leave'],
];

export function keysOf(
  place: Place | undefined,
  t: (key: TextKey) => string,
  language: string,
): { keys: string; text: string }[] {
  const own = place === undefined ? onBench : place === 'quotes' ? inLedger : [];
  return [...own, ...everywhere].map(([keys, key]) => ({ keys: keysIn(keys, language), text: t(key) }));
}
