/** The field for formulas in every state, for the page of components and its tests. */
import { useState } from 'react';
import { noUnit, readUnit, type FeelType, type Scope } from '../../../core/formula';
import { Speech } from '../../speech';
import { FormulaField } from './FormulaField';
import css from './formula-examples.module.css';

const metres: FeelType = { is: 'number', unit: readUnit('m') };
const scope: Scope = new Map([
  ['length', { slot: 0, type: metres }],
  ['width', { slot: 1, type: metres }],
  ['modules', { slot: 2, type: { is: 'number', unit: noUnit } }],
  ['surface', { slot: 3, type: { is: 'text', of: new Set(['steel', 'concrete']) } }],
  ['pit', { slot: 4, type: { is: 'yesno' } }],
]);
const names: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  en: {
    length: 'Platform length',
    width: 'Platform width',
    modules: 'Modules',
    surface: 'Deck surface',
    'surface steel': 'Steel plate',
    'surface concrete': 'Concrete',
    pit: 'In a pit',
  },
  de: {
    length: 'Brückenlänge',
    width: 'Brückenbreite',
    modules: 'Module',
    surface: 'Belag',
    'surface steel': 'Stahlblech',
    'surface concrete': 'Beton',
    pit: 'In einer Grube',
  },
};

function Example({
  name,
  start,
  language,
  ...more
}: {
  name: string;
  start: string;
  language: string;
  wanted?: FeelType;
  cell?: string;
  lines?: 'one' | 'many';
  comesTo?: string;
}) {
  const [value, setValue] = useState(start);
  return (
    <FormulaField
      label={name}
      value={value}
      scope={scope}
      nameOf={(id, option) => names[language]?.[option === undefined ? id : `${id} ${option}`]}
      onChange={setValue}
      {...more}
    />
  );
}

/** All of them. */
export default function FormulaExamples({ language }: { language: string }) {
  const shared = { language };
  return (
    <Speech language={language}>
      <section aria-label="FormulaField" className={css.examples}>
        <h2>FormulaField</h2>
        <Example {...shared} name="A number" start="length * width" comesTo="54 m2" />
        <Example {...shared} name="A condition" start="" wanted={{ is: 'yesno' }} />
        <Example {...shared} name="Something is wrong" start={'surface = "stel" or hight > 2'} />
        <Example {...shared} name="The wrong unit" start="length * width" wanted={metres} />
        <Example {...shared} name="A cell of a table" start={'"steel", "concrete"'} cell="surface" />
        <Example
          {...shared}
          name="Many lines"
          lines="many"
          start={'if pit then\n  modules * 2\nelse\n  modules'}
          comesTo="3"
        />
      </section>
    </Speech>
  );
}
