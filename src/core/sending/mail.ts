/**
 * A mail on its way, as a machine of few states. What the mail server may have been told is written down before it is
 * told, so that whoever goes on after a fall knows it; from there a mail goes again only where it is certain that the
 * server does not have it. So none is lost, and none goes twice.
 */

/**
 * making: its documents are being made; unmade: they cannot be. waiting: whole, and not handed over. handing: being handed over. sent: the
 * server has it. refused: the server will not have it. unsure: nobody can tell whether the server has it.
 */
export type MailState = 'making' | 'unmade' | 'waiting' | 'handing' | 'sent' | 'refused' | 'unsure';

/** All states, in the order of a mail's way. */
export const mailStates = ['making', 'unmade', 'waiting', 'handing', 'sent', 'refused', 'unsure'] as const;

/** What happens to a mail: from which states, and what it is then. */
export const mailEvents = {
  /** It is whole, and kept byte for byte. */
  made: { from: ['making'], to: 'waiting' },
  /** Its documents cannot be made. */
  unmade: { from: ['making'], to: 'unmade' },
  /** A person says that they are to be tried again. */
  remake: { from: ['unmade'], to: 'making' },
  /** It is about to be told to the server. */
  begun: { from: ['waiting'], to: 'handing' },
  /** The server has it; a late word of that holds, whatever was thought meanwhile. */
  taken: { from: ['handing', 'unsure', 'waiting'], to: 'sent' },
  /** The server certainly does not have it: it goes again later. */
  later: { from: ['handing'], to: 'waiting' },
  /** The server will not have it. */
  refused: { from: ['handing'], to: 'refused' },
  /** Cut off in the middle: nobody can tell. */
  lost: { from: ['handing'], to: 'unsure' },
  /** A person says that it is to go again. */
  again: { from: ['unsure', 'refused'], to: 'waiting' },
} as const satisfies Record<string, { from: readonly MailState[]; to: MailState }>;
/** Something that happens to a mail. */
export type MailEvent = keyof typeof mailEvents;

/** What a mail is after something, or null where that cannot happen to it now. */
export function mailAfter(state: MailState, event: MailEvent): MailState | null {
  const { from, to }: { from: readonly MailState[]; to: MailState } = mailEvents[event];
  return from.includes(state) ? to : null;
}

/** How a server answered when it was handed a mail. */
export type Handed =
  { is: 'taken'; refused: readonly Returned[] } | { is: 'later' | 'refused' | 'lost'; words: string };

/** An address that a mail did not reach, in the words of the server. */
export interface Returned {
  address: string;
  words: string;
}

/** What is known of an attempt that went wrong. */
export interface Fault {
  /** The command of the protocol during which it did; empty where there was no connection yet. */
  command: string;
  /** The server's answer; null where there was none. */
  code: number | null;
  words: string;
}

/**
 * What an attempt that went wrong means (RFC 5321, 4.2.1 and 4.5.3.2.6): an answer of 4xx is for now, one of 5xx for
 * good. Without an answer the server has nothing as long as the data did not begin; once it did, nobody can tell.
 */
export function handedBy({ command, code, words }: Fault): Handed {
  if (code !== null && code >= 500 && code < 600) return { is: 'refused', words };
  if (code !== null && code >= 400 && code < 500) return { is: 'later', words };
  return { is: command === 'DATA' ? 'lost' : 'later', words };
}

/** Somebody who writes or is written to. */
export interface Mailbox {
  name: string;
  address: string;
}

/** One of those that a mail goes to: told of all, or a copy. */
export interface Recipient extends Mailbox {
  as: 'to' | 'cc';
}

/** Where a share is told of in the words of a mail; without it, it comes at their end. */
export const linkMark = '{link}';

/** The words of a mail with the link in them. */
export function withLink(words: string, link: string | null): string {
  if (link === null)
    return words
      .replaceAll(linkMark, '')
      .replace(/\n{3,}/g, '\n\n')
      .trimEnd();
  return words.includes(linkMark) ? words.replaceAll(linkMark, link) : `${words.trimEnd()}\n\n${link}`;
}

/** A piece of a mail's words: text, or the link. */
export type MailPiece = { is: 'text' | 'link'; text: string };

/** The paragraphs of a mail, each in lines of pieces, for the part of it that is read as a page. */
export const paragraphsOf = (words: string, link: string | null): MailPiece[][][] =>
  words
    .split(/\n\s*\n/)
    .map((paragraph) => paragraph.split('\n').map((line) => piecesOf(line, link)))
    .filter((lines) => lines.some((pieces) => pieces.some(({ text }) => text.trim() !== '')));

function piecesOf(line: string, link: string | null): MailPiece[] {
  if (link === null) return [{ is: 'text', text: line }];
  return line
    .split(link)
    .flatMap((text, at): MailPiece[] => [
      ...(at > 0 ? [{ is: 'link' as const, text: link }] : []),
      ...(text === '' ? [] : [{ is: 'text' as const, text }]),
    ]);
}
