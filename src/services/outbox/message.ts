/** A mail as a message (RFC 5322): text and page beside each other, documents as they are. */
import { createTransport } from 'nodemailer';
import { paragraphsOf } from '../../core/sending';
import type { MailRow } from '../../data';
import { translator } from '../../i18n';

/** A document as it goes along. */
export interface Enclosed {
  name: string;
  type: string;
  bytes: Buffer;
}

const escaped = (text: string): string =>
  text.replace(
    /[&<>"']/g,
    (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[letter] as string,
  );

/** The words as a page: paragraphs, and the link as something to press. */
function pageOf({ words, link, language }: MailRow): string {
  const press = translator(language)('mail.press');
  const paragraphs = paragraphsOf(words, link).map((lines) => {
    const written = lines.map((pieces) =>
      pieces
        .map(({ is, text }) =>
          is === 'text'
            ? escaped(text)
            : `<a href="${escaped(text)}" style="display:inline-block;padding:9px 16px;background:#1f5a52;color:#ffffff;text-decoration:none">${escaped(press)}</a>`,
        )
        .join(''),
    );
    return `<p style="margin:0 0 14px">${written.join('<br>')}</p>`;
  });
  return `<!doctype html><html lang="${language}"><body style="margin:0;padding:20px;font:15px/1.5 Arial,Helvetica,sans-serif;color:#23262a"><div style="max-width:620px">${paragraphs.join('')}</div></body></html>`;
}

/** Mail programs know these only as plain text. */
const asAttached = (type: string): string => type.replace(/;.*$/, '');

/** The whole message, byte for byte as it goes. */
export async function writeMessage(mail: MailRow, documents: readonly Enclosed[]): Promise<Buffer> {
  const transport = createTransport({ streamTransport: true, buffer: true, newline: 'windows' });
  const of = (as: 'to' | 'cc') =>
    mail.recipients.filter((each) => each.as === as).map(({ name, address }) => ({ name, address }));
  const { message } = await transport.sendMail({
    messageId: `<${mail.messageId}>`,
    date: new Date(),
    from: { name: mail.sender.name, address: mail.sender.address },
    to: of('to'),
    cc: of('cc'),
    subject: mail.subject,
    text: mail.words,
    html: pageOf(mail),
    headers: { 'Content-Language': mail.language },
    attachments: documents.map(({ name, type, bytes }) => ({
      filename: name,
      contentType: asAttached(type),
      content: bytes,
      contentDisposition: 'attachment' as const,
    })),
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  return message as Buffer;
}
