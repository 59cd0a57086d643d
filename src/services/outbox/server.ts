/** The mail server that takes our mails: the simulated one that ships with us, or a real one. */
import { ourServer } from '../../standins/outbox';
import type { MailServer } from './port';
import { smtpServer } from './smtp';

let real: { url: string; server: MailServer } | undefined;

/** The one that takes our mails: that of SMTP_URL, or ours where there is none. */
export function mailServer(): MailServer {
  const url = process.env.SMTP_URL;
  if (!url) return ourServer;
  if (real?.url !== url) real = { url, server: smtpServer(url) };
  return real.server;
}
