import type { Room } from '../shell/room';

/** Mails to customers, and the server that takes them. */
export const outbox: Room = {
  id: 'outbox',
  entry: { href: '/outbox', name: 'place.outbox', shown: 'more', also: 'mail' },
  keys: [],
  texts: ['selling', 'sending'],
};

/** Where a mail is written. */
export const sending: Room = {
  id: 'sending',
  keys: [['Ctrl Enter', 'keys.sendMail']],
  texts: ['selling', 'paper', 'sending'],
};
