import type { SameTexts } from './same-texts';
import type { customersEn } from './customers.en';

/** German texts of customers and their people. */
export const customersDe: SameTexts<typeof customersEn> = {
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
