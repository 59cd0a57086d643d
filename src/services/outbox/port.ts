/** The port through which mails leave, whatever stands behind it. */
import type { Handed } from '../../core/sending';

/** A message as it is handed over. */
export interface Message {
  messageId: string;
  from: string;
  to: readonly string[];
  raw: Buffer;
}

/** A server that takes mails. */
export interface MailServer {
  readonly name: string;
  /** Hands a message over; what goes wrong is told, not thrown. */
  hand: (message: Message) => Promise<Handed>;
  /** Whether it has a message; null where it cannot be asked. */
  has: (messageId: string) => Promise<boolean | null>;
}
