/** English texts of the shelf. */
export const shelfEn = {
  shelf: {
    find: 'Customer, number or name',
    name: 'Document',
    of: 'Made of',
    customer: 'Customer',
    madeAt: 'Made',
    by: 'By',
    sent: 'Sent',
    times: '{{count}} times',
    times_one: 'once',
    never: 'not yet',
    revision: '{{number}} R{{revision}}',
    movedOn: 'moved on since',
    again: 'Make anew',
    againOf: 'Make {{name}} anew',
    made: 'Made anew: it stands first.',
    notAgain: 'This cannot be made anew here: open what it was made of.',
    none: 'Nothing was made yet. What goes out with a mail or a link stands here.',
    state: 'State',
    size: 'Size',
  },
};
