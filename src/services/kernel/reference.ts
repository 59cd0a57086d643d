/** What a reference to a record looks like; the database refuses anything else. */
const shape = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** Whether a text from outside, such as a part of an address, can be a reference at all. */
export const isReference = (text: string): boolean => shape.test(text);
