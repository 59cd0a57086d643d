/** German texts of the shelf. */
export const shelfDe = {
  shelf: {
    find: 'Kunde, Nummer oder Name',
    name: 'Dokument',
    of: 'Gemacht aus',
    customer: 'Kunde',
    madeAt: 'Gemacht',
    by: 'Von',
    sent: 'Gesendet',
    times: '{{count}}-mal',
    times_one: 'einmal',
    never: 'noch nicht',
    revision: '{{number}} R{{revision}}',
    movedOn: 'seither anders',
    again: 'Neu anlegen',
    againOf: '{{name}} neu anlegen',
    made: 'Neu angelegt: Es steht zuoberst.',
    notAgain: 'Das kann hier nicht neu angelegt werden: Öffnen Sie, woraus es gemacht ist.',
    none: 'Noch ist nichts gemacht. Was mit einer E-Mail oder einem Link hinausgeht, steht hier.',
    state: 'Stand',
    size: 'Größe',
  },
};
