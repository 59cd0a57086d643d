import type { SameTexts } from './same-texts';
import type { filesEn } from './files.en';

/** German texts of files that people bring. */
export const filesDe: SameTexts<typeof filesEn> = {
  files: {
    bring: 'Datei wählen',
    drop: 'oder hierher ziehen, oder einfügen',
    taking: 'Loslassen, um sie zu bringen',
    progress: 'Wie weit {{name}} ist',
    bringing: '{{name}}, {{percent}} %',
    working: '{{name}} wird angesehen',
    again: 'Noch einmal',
    stop: 'Anhalten',
    takeBack: '{{name}} wegnehmen',
    size: '{{size}} kB',
    dots: '{{width}} x {{height}}',
    only: 'Hier gehen nur Bilder: PNG, JPEG, WebP oder SVG.',
    unknownKind:
      'Eine Datei dieser Art wird nicht genommen. Bringen Sie ein Bild (PNG, JPEG, WebP, SVG), ein PDF, eine Tabelle (XLSX, CSV), einen Brief (DOCX) oder einen einfachen Text.',
    broken:
      'Was in dieser Datei steht, lässt sich nicht lesen. Sie kann beschädigt sein oder etwas anderes, als ihr Name sagt.',
    tooManyDots: 'Dieses Bild hat mehr als 100 Millionen Punkte. Verkleinern Sie es zuerst.',
    tooLarge: 'Diese Datei ist größer als {{most}} MB; mehr geht nicht.',
    tooManyLoose:
      'Sie haben viele Dateien, die niemand braucht. Verwenden Sie sie oder nehmen Sie zuerst einige zurück.',
    empty: 'In dieser Datei ist nichts.',
    missing: 'Diese Datei gibt es nicht, oder Sie dürfen sie nicht sehen.',
    used: 'Diese Datei wird gebraucht; nehmen Sie sie dort weg, wo sie steht.',
    lost: 'Die Verbindung brach ab, bevor alles da war.',
  },
};
