/** A quotation to try paper with: made up, as large as wanted, the same for the same number. */
import type { LinePrice } from '../pricing';
import type { PaperGiven, PaperLine } from './given';

/** A line of an item at a price for one. */
export function lineGiven(position: number, more: Partial<PaperLine> = {}): PaperLine {
  const quantity = more.quantity ?? (position % 7) + 1;
  const unit = 100 + ((position * 37) % 900);
  const price: LinePrice = {
    steps: [],
    unitList: String(unit),
    unitNet: String(unit * 0.95),
    list: String(unit * quantity),
    net: ((Math.round(unit * 0.95 * 100) * quantity) / 100).toFixed(2),
  };
  return {
    id: `line-${String(position)}`,
    position,
    name: { en: `Spare part ${String(position)}`, de: `Ersatzteil ${String(position)}` },
    sku: `SP-${String(position).padStart(5, '0')}`,
    family: 'yard',
    kind: 'part',
    partNumber: `SP-${String(position).padStart(5, '0')}`,
    quantity,
    unit: 'pc',
    optional: false,
    alternative: false,
    alternativeSet: null,
    insteadOf: null,
    group: null,
    price,
    how: '',
    taxRate: '0.2',
    covers: [],
    special: [],
    parts: [],
    partsApart: false,
    recurs: [],
    sold: [{ sku: `SP-${String(position).padStart(5, '0')}`, family: 'yard', kind: 'part' }],
    leadDays: 5,
    mass: '2',
    build: null,
    ...more,
  };
}

/** A quotation of so many lines, or of the lines given. */
export function paperGiven(lines: number | readonly PaperLine[], more: Partial<PaperGiven> = {}): PaperGiven {
  const all = typeof lines === 'number' ? Array.from({ length: lines }, (_, at) => lineGiven(at + 1)) : lines;
  const counted = all.filter(({ optional, alternative }) => !optional && !alternative);
  const cents = (of: (line: PaperLine) => string): number =>
    counted.reduce((sum, line) => sum + Math.round(Number(of(line)) * 100), 0);
  const [list, net] = [cents(({ price }) => price.list), cents(({ price }) => price.net)];
  const tax = Math.round(net * 0.2);
  const text = (value: number): string => (value / 100).toFixed(2);
  return {
    number: 'Q-26-0100',
    revision: 1,
    title: 'Spares for the year',
    day: '2026-11-05',
    validUntil: '2027-01-04',
    delivered: '2026-12-01',
    owner: { name: 'Mara Lindqvist', email: 'mara@harrowmoor.example' },
    customer: {
      number: 'C-1001',
      name: 'Callowhill Quarries Ltd',
      class: 'direct',
      contact: 'Edda Thorley',
      contactEmail: 'edda@callowhill.example',
      paymentDays: 30,
      addresses: [
        { kind: 'invoice', street: '4 Slate Row', postcode: 'CW4 2QL', town: 'Callowhill', country: 'GB' },
      ],
    },
    house: {
      name: 'Harrowmoor Scale Works',
      lines: ['Weighhouse Lane 1, HM1 2SW Harrowmoor, GB'],
      foot: ['Registered in England and Wales, 00000000'],
      mark: null,
      street: 'Weighhouse Lane 1',
      postcode: 'HM1 2SW',
      town: 'Harrowmoor',
      country: 'GB',
      phone: '',
      email: '',
      web: '',
      taxNumber: 'GB 999 9999 73',
      registered: 'Registered in England and Wales, 00000000',
      bank: '',
      iban: '',
      bic: '',
    },
    currency: 'GBP',
    decimals: 2,
    lines: all,
    totals: {
      list: text(list),
      net: text(net),
      reduction: text(list - net),
      oneTime: text(net),
      recurring: '0',
      perMonth: '0',
      firstYear: text(net),
    },
    tax: {
      net: text(net),
      byRate: [{ rate: '0.2', net: text(net), tax: text(tax) }],
      tax: text(tax),
      gross: text(net + tax),
    },
    lease: null,
    draft: false,
    ...more,
  };
}
