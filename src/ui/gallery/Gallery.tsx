/** Every component in every state, to be looked at, and to be tried by the tests. */
import { useState, type ReactNode } from 'react';
import { EllipsisVertical } from 'lucide-react';
import { Button, LinkButton } from '../Button';
import { Combobox, type ComboOption } from '../Combobox';
import { DataTable, type Column } from '../DataTable';
import { DateField } from '../DateField';
import { Dialog, DialogFoot } from '../Dialog';
import { Field } from '../Field';
import { KeyList } from '../KeyList';
import { ListPage } from '../ListPage';
import { Menu } from '../Menu';
import { Said } from '../Said';
import { Select } from '../Select';
import { Tabs } from '../Tabs';
import { say, Toaster } from '../Toaster';
import { codes } from './Codes';
import { grids } from './Grids';
import css from './gallery.module.css';

interface Example {
  /** The state, in a few words. */
  name: string;
  shown: () => ReactNode;
}

const goods: readonly ComboOption[] = [
  { id: 'deck', text: 'Steel deck', detail: 'RB-DECK-P' },
  { id: 'grid', text: 'Grid deck', detail: 'RB-DECK-G' },
  { id: 'cell', text: 'Load cell', detail: 'RB-CELL-D' },
];

function Finding({ free = false, looking }: { free?: boolean; looking?: string }) {
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState('');
  const options = looking === undefined ? goods.filter((each) => each.text.toLowerCase().includes(text)) : [];
  return (
    <>
      <Combobox
        label="Part"
        placeholder="Type to find"
        text={text}
        options={options}
        none="Nothing is called that."
        looking={looking}
        free={free}
        onText={setText}
        onChoose={(option) => {
          setChosen(option.text);
          setText(option.text);
        }}
      />
      <output>{chosen}</output>
    </>
  );
}

interface Part {
  sku: string;
  price: number;
}
const columns: readonly Column<Part>[] = [
  { id: 'sku', title: 'Number', cell: ({ sku }) => sku, sort: ({ sku }) => sku, kind: 'code' },
  {
    id: 'price',
    title: 'Price',
    cell: ({ price }) => price.toFixed(2),
    sort: ({ price }) => price,
    kind: 'figure',
  },
  { id: 'do', title: '', cell: () => <Button look="plain">Take</Button> },
];
const parts = (count: number): Part[] =>
  Array.from({ length: count }, (_, at) => ({
    sku: `SILL-${String(at).padStart(5, '0')}`,
    price: ((at * 7_919) % 1_000) / 4,
  }));
const Table = ({ rows, label = 'Parts' }: { rows: readonly Part[]; label?: string }) => (
  <DataTable
    label={label}
    columns={columns}
    rows={rows}
    rowId={({ sku }) => sku}
    empty={<p>No parts yet.</p>}
  />
);

function Day({ start = '2026-11-28', disabled = false }: { start?: string; disabled?: boolean }) {
  const [day, setDay] = useState(start);
  return (
    <DateField
      label="Delivery"
      value={day}
      shown={day}
      language="en"
      words={{ open: 'Calendar', notADay: (typed) => `“${typed}” is no day.` }}
      disabled={disabled}
      onPick={setDay}
    />
  );
}

function Opened() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Open the dialog</Button>
      <Dialog title="Keep the build" closeText="Close" open={open} onClose={() => setOpen(false)}>
        <Field label="Name" />
        <DialogFoot>
          <Button onClick={() => setOpen(false)}>Cancel</Button>
          <Button look="main">Keep</Button>
        </DialogFoot>
      </Dialog>
    </>
  );
}

function Turned() {
  const [chosen, setChosen] = useState<'parts' | 'lead' | 'why'>('parts');
  return (
    <>
      <Tabs
        label="Figures"
        panel="figures"
        chosen={chosen}
        onChoose={setChosen}
        tabs={[
          { id: 'parts', text: 'Parts' },
          { id: 'lead', text: 'Lead time' },
          { id: 'why', text: 'Why' },
        ]}
      />
      <div id="figures" role="tabpanel">
        {chosen}
      </div>
    </>
  );
}

function Picked() {
  const [picked, setPicked] = useState('');
  return (
    <>
      <Menu
        label="More"
        items={[
          { id: 'copy', text: 'Copy', onPick: () => setPicked('copied') },
          { id: 'remove', text: 'Remove', onPick: () => setPicked('removed') },
          { id: 'sheet', text: 'As a sheet', href: '#sheet', download: true },
        ]}
      >
        <EllipsisVertical size={14} aria-hidden />
      </Menu>
      <output>{picked}</output>
    </>
  );
}

/** By component, its states. */
export const gallery: Readonly<Record<string, readonly Example[]>> = {
  // First, as it takes the keyboard, and with it the page to where it is.
  ListPage: [
    {
      name: 'a list to find in',
      shown: () => (
        <div className={css.listBox}>
          <ListPage
            title="Parts"
            find={{ label: 'Find', field: { value: '', onChange: () => undefined } }}
            act={<Button look="main">New part</Button>}
            foot={<p>3 of 3</p>}
          >
            <Table rows={parts(3)} label="Parts found" />
          </ListPage>
        </div>
      ),
    },
  ],
  Button: [
    { name: 'as it is', shown: () => <Button>Add a line</Button> },
    { name: 'what the view is for', shown: () => <Button look="main">Send</Button> },
    { name: 'without a frame', shown: () => <Button look="plain">Undo</Button> },
    { name: 'not now', shown: () => <Button disabled>Send</Button> },
  ],
  LinkButton: [
    { name: 'leads somewhere', shown: () => <LinkButton href="#there">To the quote</LinkButton> },
    {
      name: 'what the view is for',
      shown: () => (
        <LinkButton look="main" href="#there">
          Back
        </LinkButton>
      ),
    },
  ],
  CodeField: codes,
  Combobox: [
    { name: 'type, move, choose', shown: () => <Finding /> },
    { name: 'what is typed counts', shown: () => <Finding free /> },
    { name: 'still looking', shown: () => <Finding looking="Looking …" /> },
    {
      name: 'something is wrong',
      shown: () => (
        <Combobox
          label="Customer"
          placeholder=""
          text="Nobody"
          options={[]}
          none=""
          error="Choose a customer."
          onText={() => undefined}
          onChoose={() => undefined}
        />
      ),
    },
  ],
  DataTable: [
    { name: 'a few rows', shown: () => <Table rows={parts(6)} /> },
    {
      name: '20,000 rows',
      shown: () => (
        <div className={css.tall}>
          <Table rows={parts(20_000)} label="Many parts" />
        </div>
      ),
    },
    { name: 'nothing', shown: () => <Table rows={[]} /> },
  ],
  DateField: [
    { name: 'a day', shown: () => <Day /> },
    { name: 'none yet', shown: () => <Day start="" /> },
    { name: 'fixed', shown: () => <Day disabled /> },
  ],
  Dialog: [{ name: 'opened by a button', shown: () => <Opened /> }],
  Field: [
    { name: 'empty', shown: () => <Field label="Title" /> },
    { name: 'with a hint', shown: () => <Field label="Discount" hint="10 or 10 %" defaultValue="10 %" /> },
    { name: 'wrong', shown: () => <Field label="Discount" error="At most 100 %." defaultValue="120 %" /> },
    { name: 'fixed', shown: () => <Field label="Number" value="Q-26-0042" readOnly /> },
  ],
  Grid: grids,
  KeyList: [
    {
      name: 'keys of a room',
      shown: () => (
        <KeyList
          keys={[
            { keys: 'Ctrl K', text: 'Search or do' },
            { keys: '?', text: 'All keys' },
          ]}
        />
      ),
    },
  ],
  Menu: [{ name: 'things to do', shown: () => <Picked /> }],
  Said: [{ name: 'told, not shown', shown: () => <Said text="RB-060 is 12,400.00 now." /> }],
  Select: [
    {
      name: 'one of a few',
      shown: () => (
        <Select
          label="Language"
          options={[
            { value: 'en', text: 'English' },
            { value: 'de', text: 'Deutsch' },
          ]}
        />
      ),
    },
  ],
  Tabs: [{ name: 'of one panel', shown: () => <Turned /> }],
  Toaster: [
    {
      name: 'says what was done, or refused',
      shown: () => (
        <>
          <Button onClick={() => say('Kept.')}>Say what was done</Button>
          <Button onClick={() => say('The quote was changed elsewhere.', true)}>Say what was refused</Button>
          <Toaster />
        </>
      ),
    },
  ],
};

/** The page that shows them all. */
export default function Gallery({ title }: { title: string }) {
  return (
    <div className={css.gallery}>
      <h1>{title}</h1>
      {Object.entries(gallery).map(([component, examples]) => (
        <section key={component} aria-label={component} className={css.component}>
          <h2>{component}</h2>
          <div className={css.examples}>
            {examples.map(({ name, shown: Shown }) => (
              <figure key={name} className={css.example}>
                <figcaption>{name}</figcaption>
                <Shown />
              </figure>
            ))}
          </div>
        </section>
      ))}
    </div>
  );
}
