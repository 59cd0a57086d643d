import type { SameTexts } from './same-texts';
import type { customersEn } from './customers.en';

/** German texts of customers, their people and addresses. */
export const customersDe: SameTexts<typeof customersEn> = {
  newCustomer: {
    begin: 'Neuer Kunde',
    loading: 'Einen Moment.',
    name: 'Name des Kunden',
    class: 'Klasse',
    priceList: 'Preisliste',
    language: 'Sprache',
    speaks: {
      en: 'Englisch',
      de: 'Deutsch',
    },
    region: 'Region',
    contactName: 'Ansprechpartner',
    contactEmail: 'E-Mail des Ansprechpartners',
    paymentDays: 'Zahlt innerhalb von Tagen',
    sameAddress: 'Lieferung an dieselbe Adresse',
    back: 'Zurück',
    go: 'Kunden anlegen',
    noName: 'Geben Sie den Namen des Kunden ein.',
    noEmail: 'Geben Sie die E-Mail des Ansprechpartners ein.',
    noContact: 'Geben Sie ein, wer dort der Kontakt ist.',
    noList: 'Wählen Sie eine Preisliste.',
    days: 'Geben Sie eine Zahl von Tagen von 0 bis 365 ein.',
    known: '{{name}} ist schon Kunde, Nummer {{number}}.',
  },
  class: {
    direct: 'direkt',
    key: 'Großkunde',
    dealer: 'Händler',
    public: 'öffentlich',
  },
  region: {
    uk: 'Vereinigtes Königreich',
    eu: 'Europäische Union',
    na: 'Nordamerika',
  },
  contact: {
    name: 'Name',
    email: 'E-Mail',
    task: 'Wofür zuständig',
    other: 'Anderer Ansprechpartner',
    new: 'Jemand Neues',
    choose: 'Wählen Sie einen Ansprechpartner.',
    change: 'Ansprechpartner: jemand anderes',
    missing: 'Diesen Ansprechpartner hat der Kunde nicht mehr.',
    one: 'Wählen Sie jemanden, der bekannt ist, oder geben Sie jemand Neues ein, nicht beides.',
  },
  address: {
    street: 'Straße',
    postcode: 'Postleitzahl',
    town: 'Ort',
    country: 'Land',
    noStreet: 'Geben Sie die Straße ein.',
    noPostcode: 'Geben Sie die Postleitzahl ein.',
    noTown: 'Geben Sie den Ort ein.',
    badCountry: 'Zwei Großbuchstaben, etwa DE.',
    change: '{{which}}: andere Adresse',
    other: {
      invoice: 'Andere Rechnungsadresse',
      delivery: 'Andere Lieferadresse',
    },
    asInvoice: 'Dieselbe wie die Rechnungsadresse',
    new: 'Eine neue Adresse',
    choose: 'Wählen Sie eine Adresse.',
    go: 'Übernehmen',
    one: 'Sagen Sie, welche Adresse: eine bekannte, eine neue oder die der Rechnung.',
    missing: 'Der Kunde hat keine solche Adresse.',
  },
  customer: {
    change: 'Anderer Kunde',
    whatChanges: 'Was sich ändern würde',
    comes: 'Klasse {{class}}, Preisliste {{list}}; Adressen, Sprache und Region kommen mit.',
    takenBack:
      'In der anderen Währung eingegebene Beträge werden zurückgenommen: {{lines}}. Geben Sie sie in {{currency}} ein.',
    go: 'Kunden wechseln',
    special:
      'Eine Ausführung hat ein Sonderteil mit Preis in {{from}}; der neue Kunde kauft in {{to}}. Nehmen Sie das Sonderteil zuerst auf der Werkbank zurück.',
  },
};
