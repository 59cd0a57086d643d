import type { SameTexts } from './same-texts';
import type { workshopEn } from './workshop.en';

/** German texts of models and formulas. */
export const workshopDe: SameTexts<typeof workshopEn> = {
  formula: {
    syntax: 'Bei „{{near}}“ lässt sich das nicht als FEEL lesen.',
    empty: 'Die Formel ist leer.',
    tooLong: 'Die Formel ist länger als {{most}} Zeichen oder Glieder.',
    tooDeep: 'Die Formel ist tiefer verschachtelt als {{most}} Stufen.',
    unsupported: '„{{what}}“ gehört nicht zu FEEL, wie Modelle es verwenden.',
    longChain:
      'Mehr als {{most}} Operatoren in einer Reihe: fassen Sie Gruppen in Klammern, oder in Berechnungen.',
    buildPosition:
      'Eine Ausführung wird durch eine geschriebene Stelle gewählt, etwa [1]. Um alle durchzugehen, schreiben Sie „for b in ... return ...“ oder „some b in ... satisfies ...“.',
    onlyBuild: 'Hier gibt es nur eine Ausführung: schreiben Sie sie ohne Stelle.',
    unknownName: 'Hier heißt nichts „{{name}}“.',
    unknownFunction: 'Es gibt keine Funktion „{{name}}“.',
    argumentCount: '{{name}} nimmt {{least}} bis {{most}} Werte.',
    wrongType: 'Hier muss {{wanted}} stehen, nicht {{found}}.',
    unitMismatch: '{{left}} und {{right}} lassen sich nicht addieren oder vergleichen.',
    unknownOption: '„{{option}}“ ist keines von: {{allowed}}.',
    textContent:
      'Was ein getippter Text sagt, kann nichts entscheiden; fragen Sie, ob er da ist, oder nach seiner Länge.',
    resultType: 'Die Formel muss {{wanted}} ergeben, ergibt aber {{found}}.',
  },
  model: {
    shape: 'Dieser Teil des Dokuments ist nicht, wie er sein muss: {{what}}.',
    badId: 'Eine Kennung beginnt mit einem Kleinbuchstaben und hat bis zu 40 Buchstaben und Ziffern.',
    badSku: 'Eine Artikelnummer hat Großbuchstaben, Ziffern, Punkte und Bindestriche, bis zu 40.',
    badDecimal: 'Eine Dezimalzahl wird als Text ausgeschrieben, etwa "12.5".',
    badDay: 'Ein Tag wird wie 2026-06-01 geschrieben.',
    noText: 'Ein Text fehlt, ist leer oder zu lang.',
    badValue: 'Dieser Wert passt hier nicht.',
    unknownField: 'Ein solches Feld gibt es nicht.',
    unknownKind: 'Eine solche Art gibt es nicht.',
    otherFormat: 'Dieses Dokument hat ein anderes Format als 1.',
    badLanguage: 'Eine Sprache hat zwei Kleinbuchstaben.',
    duplicateId: '„{{id}}“ gibt es zweimal.',
    unknownRow: '„{{id}}“ ist kein Merkmal und kein Parameter.',
    rowTwice: '„{{id}}“ steht schon in einem Abschnitt.',
    unknownTarget: 'Es gibt kein „{{id}}“, worum es hier gehen könnte.',
    badTargetValue: '„{{value}}“ ist kein Wert davon.',
    cardinality: 'Von {{options}} Optionen lassen sich nicht {{least}} wählen.',
    badRange: 'Von {{least}} bis {{most}} gibt es in Schritten von {{step}} keinen Wert.',
    tooFine:
      'Von {{least}} bis {{most}} in Schritten von {{step}} sind es zu viele Werte; höchstens {{limit}}.',
    tooManyBuilds: 'Eine Option bringt {{count}} Ausführungen; höchstens {{most}}.',
    nested: 'Das Dokument ist tiefer als {{most}} Ebenen geschachtelt.',
    cycle: '„{{id}}“ führt zu sich selbst zurück.',
    rowWidth: 'Die Zeile hat {{cells}} Zellen, nicht {{wanted}}.',
    missingText: 'Der Text fehlt in „{{language}}“.',
    unknownModel: 'Das Modell „{{id}}“ ist nicht in der Bibliothek.',
    unknownClass: 'Die Klasse „{{id}}“ ist nicht in der Bibliothek.',
    unknownContext: 'Den Kontext „{{id}}“ gibt das umgebende Modell nicht.',
    reachesOther: '„{{id}}“ reicht hinab zu einer Zeile von anderer Art oder anderem Bereich.',
    tooLarge: 'Mit allem, was darin ist, hat das Modell mehr als {{most}} Zeilen und Rechnungen.',
    tooDeep: '„{{id}}“ steht zu tief in anderen Modellen.',
    unknownPart: 'Den Preisbestandteil „{{id}}“ gibt es nicht.',
  },
};
