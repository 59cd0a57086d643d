import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  handedBy,
  mailAfter,
  mailEvents,
  mailStates,
  paragraphsOf,
  withLink,
  type MailEvent,
  type MailState,
} from '.';

const events = Object.keys(mailEvents) as MailEvent[];

describe('the way of a mail', () => {
  it('is told to the server only once what it will be told stands written, and never after it was taken', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...events), { maxLength: 40 }), (happens) => {
        let state: MailState = 'making';
        let whole = false;
        for (const event of happens) {
          const next = mailAfter(state, event);
          if (next === null) continue;
          if (event === 'made') whole = true;
          // Nothing is handed over that is not whole, or was taken.
          if (next === 'handing') expect([state, whole]).toEqual(['waiting', true]);
          expect(state).not.toBe('sent');
          state = next;
        }
        expect(mailStates).toContain(state);
      }),
    );
  });

  it('goes again by itself only where the server certainly does not have it', () => {
    const back = events.filter((event) => mailAfter('handing', event) === 'waiting');
    expect(back).toEqual(['later']);
    expect(mailAfter('unsure', 'later')).toBeNull();
    expect(mailAfter('unsure', 'again')).toBe('waiting');
    expect(mailAfter('unsure', 'taken')).toBe('sent');
  });

  it.each([
    [{ command: '', code: null, words: 'ECONNREFUSED' }, 'later'],
    [{ command: 'EHLO', code: 421, words: 'closing' }, 'later'],
    [{ command: 'RCPT TO', code: 450, words: 'busy' }, 'later'],
    [{ command: 'RCPT TO', code: 550, words: 'no such mailbox' }, 'refused'],
    [{ command: 'AUTH PLAIN', code: 535, words: 'who are you' }, 'refused'],
    [{ command: 'DATA', code: 554, words: 'spam' }, 'refused'],
    [{ command: 'DATA', code: 452, words: 'full' }, 'later'],
    [{ command: 'DATA', code: null, words: 'connection closed' }, 'lost'],
    [{ command: 'MAIL FROM', code: null, words: 'timeout' }, 'later'],
  ])('reads what went wrong: %o is %s', (fault, is) => {
    expect(handedBy(fault)).toEqual({ is, words: fault.words });
  });
});

describe('the words of a mail', () => {
  it('have the link where it is meant, at the end where it is not, and no trace of it without one', () => {
    expect(withLink('a\n\n{link}\n\nb', 'https://x/s/1')).toBe('a\n\nhttps://x/s/1\n\nb');
    expect(withLink('a\n', 'https://x/s/1')).toBe('a\n\nhttps://x/s/1');
    expect(withLink('a\n\n{link}\n\nb', null)).toBe('a\n\nb');
  });

  it('lose nothing when they are told in paragraphs', () => {
    const word = fc.stringMatching(/^[a-z<&"]{1,6}$/);
    fc.assert(
      fc.property(
        fc.array(fc.array(word, { minLength: 1, maxLength: 3 }), { maxLength: 5 }),
        (paragraphs) => {
          const link = 'https://x/s/1';
          const words = paragraphs.map((lines) => lines.join('\n')).join('\n\n');
          const told = paragraphsOf(`${words}\n\n${link}`, link);
          const back = told.map((lines) =>
            lines.map((pieces) => pieces.map(({ text }) => text).join('')).join('\n'),
          );
          expect(back).toEqual([...paragraphs.map((lines) => lines.join('\n')), link]);
          expect(told.at(-1)).toEqual([[{ is: 'link', text: link }]]);
        },
      ),
    );
  });
});
