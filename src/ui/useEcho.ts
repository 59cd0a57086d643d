import { useState } from 'react';

/** What a field said itself, to be told from what somebody else wants shown in it. */
export interface Echo<T> {
  /** The field says this. */
  said: (value: T) => void;
  /** Whether a value that comes in is one that the field said and has not heard yet; those before it are heard too. */
  hears: (value: T) => boolean;
}

/**
 * A field hears late what it said: a render may come after the next key. Whoever took that for somebody else's wish
 * would put back what was typed before, and lose the key.
 */
export function createEcho<T>(alike: (one: T, other: T) => boolean = Object.is): Echo<T> {
  let waiting: T[] = [];
  return {
    said: (value) => {
      waiting.push(value);
    },
    hears: (value) => {
      const at = waiting.findLastIndex((each) => alike(each, value));
      if (at < 0) return false;
      waiting = waiting.slice(at + 1);
      return true;
    },
  };
}

/** The echo of one field, for as long as it is there. */
export const useEcho = <T>(alike?: (one: T, other: T) => boolean): Echo<T> =>
  useState(() => createEcho(alike))[0];
