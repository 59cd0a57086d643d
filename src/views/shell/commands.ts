/**
 * What search-or-do can do: each page and the frame around it say their commands here, for as long as they
 * are there.
 */
import { useEffect } from 'react';
import { foundBy } from '../../core/finding';
import { useLatest } from '../../ui';

/** Something that search-or-do can do. */
export interface Command {
  id: string;
  text: string;
  /** More words by which it is found, such as the other language's. */
  also?: string;
  /** The keys that do the same. */
  keys?: string;
  act: () => void;
}

const sources = new Set<() => readonly Command[]>();

/** Offers commands while the component that says them is on the page. */
export function useCommands(commands: () => readonly Command[]): void {
  const latest = useLatest(commands);
  useEffect(() => {
    const source = () => latest.current();
    sources.add(source);
    return () => {
      sources.delete(source);
    };
  }, [latest]);
}

const textsOf = ({ text, also = '' }: Command): string[] => [text, also];
const lettersIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
const wordsIn = (command: Command): string[] => lettersIn(textsOf(command).join(' '));

/**
 * Those of all commands of which every typed word begins a word, the page's own first; `meant` gives those
 * that are only like it.
 */
export function commandsFor(
  typed: string,
  meant = false,
  all: readonly Command[] = [...sources].reverse().flatMap((source) => source()),
): readonly Command[] {
  const words = lettersIn(typed);
  if (words.length === 0) return [];
  return meant
    ? foundBy(all, typed, textsOf)
    : all.filter((command) => words.every((word) => wordsIn(command).some((each) => each.startsWith(word))));
}
