/** The shape of texts, whatever they say: what is said in one language is said in each. */
export type SameTexts<T> = { [K in keyof T]: T[K] extends string ? string : SameTexts<T[K]> };
