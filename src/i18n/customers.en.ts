/** English texts of customers and their people. */
export const customersEn = {
  contact: {
    name: 'Name',
    email: 'E-mail',
    task: 'What they see to',
    other: 'Another contact',
    new: 'Somebody new',
    choose: 'Choose a contact.',
    change: 'Contact: another person',
    missing: 'The customer has no such contact any more.',
    one: 'Choose somebody known or type somebody new, not both.',
  },
  customer: {
    change: 'Another customer',
    whatChanges: 'What would change',
    comes: 'Class {{class}}, price list {{list}}; addresses, language and region come along.',
    takenBack: 'Amounts typed in the other currency are taken back: {{lines}}. Type them in {{currency}}.',
    go: 'Change the customer',
    special:
      'A build has a special part priced in {{from}}; the new customer buys in {{to}}. Take the special part back on the Bench first.',
  },
};
