/**
 * What people are told while they look: that something of theirs is otherwise by now, within a second and on whichever
 * instance they are. What it is they ask for as ever; nothing travels here that somebody might not see.
 */
import { listen, tellAll } from '../../data';
import { beforeLeaving } from './leaving';

/** What is otherwise: answers of customers, mails, what colleagues ask or answer, what waits on the Desk. */
export type LiveKind = 'answer' | 'mail' | 'colleague' | 'desk';

/** That something is otherwise, and of which quote; null where it is of none. */
export interface Word {
  kind: LiveKind;
  quote: string | null;
}

/** Hears words; that some may have been missed (`gap`), and that there will be no more (`end`). */
type Hears = (word: Word | 'gap' | 'end') => void;

const channel = 'iunctura_live';
const hearers = new Map<string, Set<Hears>>();
let stop: (() => Promise<void>) | undefined;

/** Tells people; within a unit of work they hear it once that holds. */
export async function tell(people: readonly string[], word: Word): Promise<void> {
  // A word for many is told in parts, since the database carries only so much at once.
  for (let at = 0; at < people.length; at += 100)
    await tellAll(channel, JSON.stringify({ people: people.slice(at, at + 100), word }));
}

function heard(text: string): void {
  const { people, word } = JSON.parse(text) as { people: string[]; word: Word };
  for (const person of people) for (const hears of hearers.get(person) ?? []) hears(word);
}

/** Lines that one person may have open at once: as many windows as somebody looks at, and no flood. */
const mostLines = 20;

/** Whether somebody may have one more line. */
export const mayHear = (person: string): boolean => (hearers.get(person)?.size ?? 0) < mostLines;

/** Lets somebody hear what they are told; gives what ends it. */
export function hear(person: string, hears: Hears): () => void {
  stop ??= listen(channel, {
    onWord: heard,
    onGap: () => {
      for (const all of hearers.values()) for (const each of all) each('gap');
    },
  });
  const own = hearers.get(person) ?? new Set();
  hearers.set(person, own.add(hears));
  return () => {
    own.delete(hears);
    if (own.size === 0) hearers.delete(person);
  };
}

/** Ends all hearing; of tests, and of a server that leaves. */
export async function endLive(): Promise<void> {
  const all = [...hearers.values()].flatMap((each) => [...each]);
  hearers.clear();
  for (const each of all) each('end');
  const ending = stop;
  stop = undefined;
  await ending?.();
}
beforeLeaving(endLive);
