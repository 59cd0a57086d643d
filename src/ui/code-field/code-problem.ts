/** Something wrong with a text, from one character to before another. */
export interface CodeProblem {
  from: number;
  to: number;
  text: string;
}
