/** A message as whoever gets it sees it: read from its bytes, as a mail program does. */
import { createHash } from 'node:crypto';
import PostalMime, { type Address } from 'postal-mime';
import type { SeenMail } from '../../contract';

const shown = ({ name, address }: Address): string =>
  name && name !== address ? `${name} <${address ?? ''}>` : (address ?? '');

/** Reads it. */
export async function readMessage(raw: Buffer): Promise<SeenMail> {
  const mail = await PostalMime.parse(raw, { attachmentEncoding: 'arraybuffer' });
  return {
    from: mail.from ? shown(mail.from) : '',
    to: (mail.to ?? []).map(shown),
    cc: (mail.cc ?? []).map(shown),
    subject: mail.subject ?? '',
    at: mail.date ?? '',
    text: mail.text ?? '',
    html: mail.html ?? '',
    attachments: mail.attachments.map(({ filename, mimeType, content }) => {
      const bytes = Buffer.from(content as ArrayBuffer);
      return {
        name: filename ?? '',
        type: mimeType,
        size: bytes.length,
        hash: createHash('sha256').update(bytes).digest('hex'),
      };
    }),
  };
}
