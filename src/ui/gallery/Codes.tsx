/** Fields for a text in a language of its own in every state, for the page of components and its tests. */
import { useState } from 'react';
import { CodeField, type CodeProblem, type CodeProposals } from '../code-field';
import css from './gallery.module.css';

const known = ['deck', 'depth', 'frame', 'ramps'];

function propose(text: string, at: number): CodeProposals {
  const written = /\w*$/.exec(text.slice(0, at))?.[0] ?? '';
  const found = known.filter((each) => each.startsWith(written));
  return {
    from: at - written.length,
    to: at,
    proposals: found.map((each) => ({ text: each, name: `${each} of the scale`, detail: each })),
  };
}

const problemsOf = (text: string): CodeProblem[] =>
  [...text.matchAll(/[a-z]+/g)]
    .filter(([word]) => !known.includes(word))
    .map(({ 0: word, index }) => ({
      from: index,
      to: index + word.length,
      text: `Nothing is called “${word}” here.`,
    }));

interface Shown {
  start: string;
  lines?: 'one' | 'many';
  readOnly?: boolean;
  comesTo?: string;
}

function Example({ start, comesTo, ...more }: Shown) {
  const [value, setValue] = useState(start);
  return (
    <div className={css.codeBox}>
      <CodeField
        label="Formula"
        value={value}
        problems={problemsOf(value)}
        propose={propose}
        onChange={setValue}
        {...(comesTo === undefined ? {} : { beside: comesTo })}
        {...more}
      />
      <output hidden>{value}</output>
    </div>
  );
}

/** By state. */
export const codes = [
  { name: 'one line, and what it comes to', shown: () => <Example start="deck * 2" comesTo="= 36 m" /> },
  { name: 'something is wrong', shown: () => <Example start="deck * hight" /> },
  { name: 'many lines', shown: () => <Example start={'deck +\n  depth +\n  frame'} lines="many" /> },
  { name: 'fixed', shown: () => <Example start="ramps + 1" readOnly /> },
];
