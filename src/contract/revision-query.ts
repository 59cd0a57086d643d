/** Which revision of a quote an address asks for. */
import { mixed, object } from 'yup';

/** `?revision=2`; the newest where it is absent. What is no number names none that there is. */
export const revisionQuery = object({
  revision: mixed<number>().transform((value: unknown) =>
    value === undefined
      ? undefined
      : typeof value === 'string' && /^\d{1,3}$/.test(value)
        ? Number(value)
        : 0,
  ),
});
