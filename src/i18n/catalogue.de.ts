import type { SameTexts } from './same-texts';
import type { catalogueEn } from './catalogue.en';

/** German texts of the catalogue. */
export const catalogueDe: SameTexts<typeof catalogueEn> = {
  catalogue: {
    title: 'Katalog',
    families: 'Familien',
    all: 'Alle',
    find: 'Im Katalog suchen',
    item: 'Artikel',
    name: 'Name',
    unit: 'Einheit',
    price: 'Preis',
    lead: 'Lieferzeit',
    mass: 'Masse',
    cost: 'Kosten',
    configure: 'Konfigurieren',
    add: 'Hinzufügen',
    noPrice: 'kein Preis in dieser Liste',
    none: 'Kein Artikel hat „{{text}}“. Prüfen Sie die Schreibweise oder wählen Sie eine andere Familie.',
    toQuote: 'Für Angebot',
    pickQuote: 'Angebot wählen',
    added: '{{sku}} steht auf {{number}}.',
    needQuote: 'Wählen Sie das Angebot, für das es ist, oder öffnen Sie ein neues.',
    items: '{{count}} Artikel',
    items_one: 'Ein Artikel',
  },
  quantity: {
    notANumber: 'Geben Sie eine Zahl ein, zum Beispiel 2.',
    byPiece: '{{sku}} wird stückweise verkauft: Geben Sie eine ganze Zahl ein.',
    whole: 'Geben Sie eine ganze Zahl ohne Nachkommastellen ein.',
    fine: 'Geben Sie höchstens drei Nachkommastellen ein.',
    range: 'Die Menge muss größer als 0 und höchstens 99.999 sein.',
    required: 'Geben Sie eine Menge ein.',
  },
  number: {
    forbidden: '„{{text}}“ ist lesbar, aber die Regeln erlauben diese Ausführung nicht.',
    unreadable: '„{{text}}“ ist ab „{{rest}}“ keine Teilenummer. Erlaubt wäre dort: {{allowed}}.',
    unknown: '„{{text}}“ ist keine Teilenummer, die wir kennen.',
  },
};
