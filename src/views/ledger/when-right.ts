import type { FieldValues, UseFormHandleSubmit } from 'react-hook-form';

/**
 * Does what is to be done once all fields are right, and gives its refusal; fields that are not say so
 * themselves.
 */
export async function whenRight<T extends FieldValues>(
  handleSubmit: UseFormHandleSubmit<T>,
  then: (values: T) => Promise<string | null>,
): Promise<string | null> {
  let refusal: string | null = null;
  await handleSubmit(async (values) => {
    refusal = await then(values);
  })();
  return refusal;
}
