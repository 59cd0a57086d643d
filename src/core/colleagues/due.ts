/** When a follow-up is due. Days are ISO days of the house's calendar. */

/** How near a day is. */
export type Due = 'overdue' | 'today' | 'soon' | 'later';

/** So many days ahead somebody is told of what they meant to do. */
const soonDays = 7;
const dayLength = 24 * 60 * 60 * 1000;

/** How near a day is, seen from today. */
export function dueIn(day: string, today: string): Due {
  const days = (Date.parse(day) - Date.parse(today)) / dayLength;
  if (days < 0) return 'overdue';
  if (days === 0) return 'today';
  return days <= soonDays ? 'soon' : 'later';
}
