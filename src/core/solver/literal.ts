/**
 * A variable's being true or false: twice the variable's number, plus one where it is the "false" of the
 * variable.
 */
export type Lit = number;

/** The opposite literal. */
export const not = (lit: Lit): Lit => lit ^ 1;
/** The variable of a literal. */
export const variableOf = (lit: Lit): number => lit >> 1;

/** The literal that always holds: variable 0, settled before anything else. */
export const always: Lit = 0;
/** The literal that is never true. */
export const never: Lit = 1;
