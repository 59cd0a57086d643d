/** What a room tells the shell: where it is entered, who may, and which keys it has. */
// By its own file: the door of the contract brings every schema along.
import { granted, type Permission, type Role } from '../../contract/permissions';
import { keysIn, type TextBundle, type TextKey } from '../../i18n';

/** A key, or several that belong together, and what they do. */
export type RoomKey = readonly [keys: string, does: TextKey];

/** Where a room is entered. */
export interface Entry {
  href: string;
  name: TextKey;
  /** In the bar, in the order of its key; under More; or found by search-or-do alone. */
  shown: 'bar' | 'more' | 'found';
  /** More words by which it is found. */
  also?: string;
  /** What it takes to enter; everybody may where nothing is said. */
  who?: Permission;
}

/** A room as the shell knows it; one without an entry is reached from others alone. */
export interface Room {
  id: string;
  entry?: Entry;
  keys: readonly RoomKey[];
  /** Which texts its pages say, besides those of the frame. */
  texts: readonly TextBundle[];
}

/** The texts of a page: those of every page, and what its room says besides. */
export const textsOf = (room: Room | undefined): readonly TextBundle[] => [
  'everywhere',
  ...(room?.texts ?? []),
];

/** Keys that work in every room. */
const everywhere = (places: number): RoomKey[] => [
  ['Ctrl K', 'keys.search'],
  [`Alt 1 – ${String(places)}`, 'keys.places'],
  ['?', 'keys.help'],
];

/** The entries of rooms that somebody may enter, with the rooms' ids. */
export const entriesFor = (rooms: readonly Room[], role: Role): (Entry & { id: string })[] =>
  rooms.flatMap(({ id, entry }) =>
    entry && (entry.who === undefined || granted[role].includes(entry.who)) ? [{ id, ...entry }] : [],
  );

/** The keys of a room and those that work everywhere, in words. */
export const keysOf = (
  room: Room | undefined,
  places: number,
  t: (key: TextKey) => string,
  language: string,
): { keys: string; text: string }[] =>
  [...(room?.keys ?? []), ...everywhere(places)].map(([keys, does]) => ({
    keys: keysIn(keys, language),
    text: t(does),
  }));
