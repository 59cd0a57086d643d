import type { SameTexts } from './same-texts';
import type { gridEn } from './grid.en';

/** German texts of grids. */
export const gridDe: SameTexts<typeof gridEn> = {
  grid: {
    rows: '{{figure}} Zeilen',
    rows_one: 'Eine Zeile',
    marked: '{{count}} Zellen markiert',
    wrong: '{{figure}} Zellen zu berichtigen',
    wrong_one: 'Eine Zelle zu berichtigen',
    tooMany: 'Es gehen höchstens {{most}} Zeilen. Nichts wurde eingefügt.',
    beside: '{{figure}} Spalten hatten keinen Platz und wurden weggelassen.',
    beside_one: 'Eine Spalte hatte keinen Platz und wurde weggelassen.',
    undone: 'Zurückgenommen.',
    redone: 'Wiederholt.',
    empty: 'Noch keine Zeilen. Tippen Sie hinein, fügen Sie aus einer Tabelle ein oder fügen Sie eine hinzu.',
    add: 'Zeile hinzufügen',
    more: 'Was mit Zeilen getan werden kann',
    row: 'Zeile {{number}}',
    open: '{{row}} öffnen',
    fold: '{{row}} zuklappen',
    takeOut: 'Ausgeben',
    takeIn: 'Einlesen',
    noShare: 'Zwischen 0 und 100 %.',
    noNumber: '„{{value}}“ ist keine Zahl.',
    negative: 'Geben Sie eine Zahl ab 0 ein.',
    tooFine: 'Geben Sie höchstens {{count}} Nachkommastellen ein.',
    tooFine_one: 'Geben Sie höchstens eine Nachkommastelle ein.',
    noCountry: '„{{value}}“ ist kein Land. Tippen Sie einen Namen aus der Liste oder zwei Buchstaben wie GB.',
    act: {
      above: 'Darüber hinzufügen',
      below: 'Darunter hinzufügen',
      double: 'Verdoppeln',
      remove: 'Wegnehmen',
      up: 'Nach oben',
      down: 'Nach unten',
      in: 'In die vorige hinein',
      out: 'Heraus, dahinter',
    },
  },
};
