/** English texts of files that people bring. */
export const filesEn = {
  files: {
    bring: 'Choose a file',
    drop: 'or drop it here, or paste it',
    taking: 'Let it go to bring it',
    progress: 'How far {{name}} is',
    bringing: '{{name}}, {{percent}} %',
    working: '{{name}} is being looked at',
    again: 'Try again',
    stop: 'Stop',
    takeBack: 'Take {{name}} away',
    size: '{{size}} kB',
    dots: '{{width}} x {{height}}',
    only: 'Here only pictures can be used: PNG, JPEG, WebP or SVG.',
    unknownKind:
      'A file of this kind is not taken. Bring a picture (PNG, JPEG, WebP, SVG), a PDF, a sheet (XLSX, CSV), a letter (DOCX) or a plain text.',
    broken:
      'What is in this file cannot be read. It may be damaged, or be something else than its name says.',
    tooManyDots: 'This picture has more than 100 million dots. Make it smaller first.',
    tooLarge: 'This file is larger than {{most}} MB, which is the most there can be.',
    tooManyLoose: 'You have many files that nothing uses. Use them or take some back first.',
    empty: 'There is nothing in this file.',
    missing: 'There is no such file, or it is not yours to see.',
    used: 'This file is used; take it away where it is.',
    lost: 'The line broke before all of it was there.',
  },
};
