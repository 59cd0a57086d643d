/** What is written in a model: texts for people, and formulas. */

/** A text in every language of the document, by language code. */
export type Texts = Readonly<Record<string, string>>;

/** A FEEL expression. */
export type Feel = string;
