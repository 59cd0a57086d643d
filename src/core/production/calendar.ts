/** Working days: Monday to Friday. */

/**
 * Working days between the lead time of what is built and the date promised: packing and the way to the
 * customer.
 */
export const shippingDays = 2;

/** The ISO day so many working days after another. */
export function afterWorkingDays(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  for (let left = days; left > 0;) {
    date.setUTCDate(date.getUTCDate() + 1);
    if (date.getUTCDay() !== 0 && date.getUTCDay() !== 6) left -= 1;
  }
  return date.toISOString().slice(0, 10);
}
