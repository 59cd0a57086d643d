import type { Conflict } from './merge';

/** What names a conflict, so that it can be settled. */
export const conflictKey = ({ theirs }: Conflict): string =>
  theirs.is === 'added'
    ? [...theirs.to, theirs.part.id].join('/')
    : [...theirs.at, ...(theirs.is === 'set' ? [`.${theirs.name}`] : [])].join('/');
