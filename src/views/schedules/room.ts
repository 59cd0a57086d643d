import type { Room } from '../shell/room';

/** What stands where on a site. */
export const schedules: Room = {
  id: 'schedules',
  entry: {
    href: '/schedules',
    name: 'place.schedules',
    shown: 'more',
    also: 'site tag package',
    who: 'quotes',
  },
  keys: [],
  texts: ['house', 'sheets', 'schedules'],
};
