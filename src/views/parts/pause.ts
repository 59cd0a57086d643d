/** Typing has paused after so many milliseconds: what is typed is asked for then, not with every key. */
export const pause = 180;
