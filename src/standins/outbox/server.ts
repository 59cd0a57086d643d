/**
 * A mail server that keeps what it is given, and shows it. It takes a message once, however often it is handed over; it
 * can be down; and it knows no mailbox at a host of the reserved name "invalid" (RFC 2606), as no server does.
 */
import { QueryTypes } from 'sequelize';
import { connected } from '../../data';
import type { Handed } from '../../core/sending';
import type { MailServer } from '../../services/outbox/port';

const unknown = /\.invalid$/i;

/** Whether it is down. */
export async function isDown(): Promise<boolean> {
  const [row] = await connected().sequelize.query<{ down: boolean }>('select down from outbox_server', {
    type: QueryTypes.SELECT,
  });
  return row?.down ?? false;
}

/** Takes it down, or brings it up. */
export async function setDown(down: boolean): Promise<void> {
  await connected().sequelize.query('update outbox_server set down = $1', { bind: [down] });
}

/** A message as it was taken, where it was. */
export async function keptMessage(messageId: string): Promise<Buffer | null> {
  const [row] = await connected().sequelize.query<{ raw: Buffer }>(
    'select raw from outbox_mails where message_id = $1',
    { bind: [messageId], type: QueryTypes.SELECT },
  );
  return row?.raw ?? null;
}

/** It. */
export const ourServer: MailServer = {
  name: 'Outbox',
  async hand({ messageId, from, to, raw }): Promise<Handed> {
    if (await isDown()) return { is: 'later', words: '421 the Outbox is down' };
    const refused = to
      .filter((address) => unknown.test(address))
      .map((address) => ({ address, words: '550 no such mailbox' }));
    if (refused.length === to.length) return { is: 'refused', words: '550 no such mailbox' };
    await connected().sequelize.query(
      `insert into outbox_mails (message_id, sender, recipients, raw) values ($1, $2, $3, $4)
       on conflict (message_id) do nothing`,
      {
        bind: [messageId, from, JSON.stringify(to.filter((address) => !unknown.test(address))), raw],
      },
    );
    return { is: 'taken', refused };
  },
  async has(messageId) {
    const [row] = await connected().sequelize.query<{ there: boolean }>(
      'select exists (select 1 from outbox_mails where message_id = $1) as there',
      { bind: [messageId], type: QueryTypes.SELECT },
    );
    return row?.there === true;
  },
};
