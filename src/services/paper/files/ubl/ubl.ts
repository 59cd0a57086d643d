/**
 * A quotation as UBL 2.1 Quotation (OASIS, urn:oasis:names:specification:ubl:schema:xsd:Quotation-2). Elements stand
 * in the order of its schema; codes are those of ISO 4217, ISO 3166-1, UN/ECE Recommendation 20, and UN/ECE 5153 and
 * 5305 for tax. Prices are net: reductions are told as allowances at the line and for the whole, as far as the
 * document shows them.
 */
import { exact, roundHalfUp, type ExactText } from '../../../../core/exact';
import type { Composition, PaperAddress, PaperGiven, PaperLine, Words } from '../../../../core/paper';
import { across, multiplies } from '../../../../core/pricing';
import { orderOf } from './order';

/** An element: its name, its attributes, and what is in it. Nothing where it is undefined. */
type Element = readonly [
  name: string,
  content: string | readonly (Element | undefined)[],
  attributes?: Record<string, string>,
];

const spaces = {
  xmlns: 'urn:oasis:names:specification:ubl:schema:xsd:Quotation-2',
  'xmlns:cac': 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
  'xmlns:cbc': 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
};

/** Units of measure as UN/ECE Recommendation 20 codes them; what is not here is counted in pieces. */
const units: Readonly<Record<string, string>> = {
  pc: 'C62',
  set: 'SET',
  m: 'MTR',
  m2: 'MTK',
  m3: 'MTQ',
  kg: 'KGM',
  t: 'TNE',
  h: 'HUR',
  day: 'DAY',
  days: 'DAY',
  month: 'MON',
  months: 'MON',
  year: 'ANN',
  km: 'KMT',
  l: 'LTR',
};

/** The quotation as XML. Optional and alternative lines have no place in its sums, and are left to the pages. */
export function writeUbl(given: PaperGiven, composition: Composition, words: Words): Uint8Array {
  return new TextEncoder().encode(
    `<?xml version="1.0" encoding="UTF-8"?>\n${xmlOf(['Quotation', contentOf(given, composition, words), spaces], 0)}`,
  );
}

function contentOf(
  given: PaperGiven,
  { lines: choice, language }: Composition,
  words: Words,
): (Element | undefined)[] {
  const { currency, totals, tax, decimals, customer, house, owner } = given;
  const counted = given.lines.filter(({ optional, alternative }) => !optional && !alternative);
  const priced = choice.prices !== 'none';
  const money = (name: string, value: ExactText): Element => [
    name,
    roundHalfUp(exact(value), decimals).toFixed(decimals),
    { currencyID: currency },
  ];
  const whole = counted.reduce((sum, { price }) => sum.plus(price.share ?? '0'), exact(0));
  // What is hidden at the lines, and on the pages, is no allowance here either.
  const told = choice.discounts !== 'none' && !whole.isZero();
  const linesNet = told ? whole.plus(totals.net) : exact(totals.net);
  return [
    ['cbc:UBLVersionID', '2.1'],
    ['cbc:ID', given.number],
    ['cbc:IssueDate', given.day],
    ...(given.title === ''
      ? []
      : [['cbc:Note', given.title, { languageID: language.slice(0, 2) }] as Element]),
    ['cbc:PricingCurrencyCode', currency],
    ['cbc:LineCountNumeric', String(counted.length)],
    ['cac:ValidityPeriod', [['cbc:EndDate', given.validUntil]]],
    [
      'cac:SellerSupplierParty',
      [party({ ...house, contact: owner.name, contactEmail: owner.email, identity: '' }, house)],
    ],
    [
      'cac:BuyerCustomerParty',
      [
        party(
          {
            name: customer.name,
            contact: customer.contact,
            contactEmail: customer.contactEmail,
            identity: customer.number,
            taxNumber: '',
          },
          addressOf(given, 'invoice'),
        ),
      ],
    ],
    [
      'cac:Delivery',
      [
        ['cac:DeliveryLocation', [address('cac:Address', addressOf(given, 'delivery'))]],
        ['cac:PromisedDeliveryPeriod', [['cbc:EndDate', given.delivered]]],
      ],
    ],
    [
      'cac:TransactionConditions',
      [
        [
          'cbc:Description',
          words.say(tax ? 'terms' : 'termsUntaxed', { currency, days: customer.paymentDays }),
        ],
      ],
    ],
    ...(priced && told
      ? [
          [
            'cac:AllowanceCharge',
            [
              ['cbc:ChargeIndicator', 'false'],
              ['cbc:AllowanceChargeReasonCode', '95'],
              ['cbc:AllowanceChargeReason', words.say('wholeOff')],
              money('cbc:Amount', whole.toString()),
              money('cbc:BaseAmount', linesNet.toString()),
            ],
          ] as Element,
        ]
      : []),
    ...(priced && tax
      ? [
          [
            'cac:TaxTotal',
            [
              money('cbc:TaxAmount', tax.tax),
              ...tax.byRate.map(({ rate, net, tax: due }): Element => [
                'cac:TaxSubtotal',
                [
                  money('cbc:TaxableAmount', net),
                  money('cbc:TaxAmount', due),
                  taxCategory('cac:TaxCategory', rate),
                ],
              ]),
            ],
          ] as Element,
        ]
      : []),
    ...(priced
      ? [
          [
            'cac:QuotedMonetaryTotal',
            [
              money('cbc:LineExtensionAmount', linesNet.toString()),
              money('cbc:TaxExclusiveAmount', totals.net),
              money('cbc:TaxInclusiveAmount', tax?.gross ?? totals.net),
              ...(told ? [money('cbc:AllowanceTotalAmount', whole.toString())] : []),
              money('cbc:PayableAmount', tax?.gross ?? totals.net),
            ],
          ] as Element,
        ]
      : []),
    ...counted.map((line) => quotationLine(line, { given, choice, words, money, told })),
  ];
}

interface LineSetting {
  given: PaperGiven;
  choice: Composition['lines'];
  words: Words;
  money: (name: string, value: ExactText) => Element;
  told: boolean;
}

function quotationLine(line: PaperLine, { given, choice, words, money, told }: LineSetting): Element {
  const { price, quantity } = line;
  const amount = told ? exact(price.net).plus(price.share ?? '0') : exact(price.net);
  const code = units[line.unit] ?? 'C62';
  const count: Element = ['cbc:Quantity', String(quantity), { unitCode: code }];
  const each = choice.prices === 'each';
  return [
    'cac:QuotationLine',
    [
      ['cbc:ID', String(line.position)],
      [
        'cac:LineItem',
        [
          ['cbc:ID', String(line.position)],
          count,
          ...(each ? [money('cbc:LineExtensionAmount', amount.toString())] : []),
          ...(each && choice.discounts === 'line'
            ? lineAllowance(line, amount.toString(), money, words)
            : []),
          ...(each ? [unitPrice(line, amount.toString(), given, code, told)] : []),
          item(line, given, choice, words),
        ],
      ],
    ],
  ];
}

/** What is taken off the list price of a line, where the document tells it. */
function lineAllowance(
  { price }: PaperLine,
  amount: ExactText,
  money: LineSetting['money'],
  words: Words,
): Element[] {
  const off = exact(price.list).minus(amount);
  return off.isZero()
    ? []
    : [
        [
          'cac:AllowanceCharge',
          [
            ['cbc:ChargeIndicator', off.isNegative() ? 'true' : 'false'],
            ...(off.isNegative() ? [] : [['cbc:AllowanceChargeReasonCode', '95'] as Element]),
            ['cbc:AllowanceChargeReason', words.say('discount')],
            money('cbc:Amount', off.abs().toString()),
            money('cbc:BaseAmount', price.list),
          ],
        ],
      ];
}

/** The price of one where it multiplies; else of all of them, for so many. */
function unitPrice(
  line: PaperLine,
  amount: ExactText,
  { currency, decimals }: PaperGiven,
  code: string,
  told: boolean,
): Element {
  const rows = across(line.price, line.quantity).filter(({ is }) => is !== 'share');
  const [only] = rows;
  const plain =
    rows.length === 1 &&
    only?.is === 'pieces' &&
    multiplies(only, decimals) &&
    (told || line.price.share === undefined);
  const value = plain && only.unitNet !== undefined ? only.unitNet : amount;
  const base = plain ? '1' : String(line.quantity);
  return [
    'cac:Price',
    [
      ['cbc:PriceAmount', exact(value).toFixed(), { currencyID: currency }],
      ['cbc:BaseQuantity', base, { unitCode: code }],
    ],
  ];
}

function item(line: PaperLine, given: PaperGiven, choice: Composition['lines'], words: Words): Element {
  const rows = choice.chosen === 'none' ? [] : (line.build?.rows ?? []);
  const rate = line.taxRate;
  return [
    'cac:Item',
    [
      ['cbc:Name', words.own(line.name)],
      ...(choice.numbers
        ? [['cac:SellersItemIdentification', [['cbc:ID', line.partNumber]]] as Element]
        : []),
      ...(rate !== null && given.tax && choice.prices !== 'none'
        ? [taxCategory('cac:ClassifiedTaxCategory', rate)]
        : []),
      ...rows
        .filter((row) => choice.chosen !== 'short' || row.decided)
        .map(({ name, value }): Element => [
          'cac:AdditionalItemProperty',
          [
            ['cbc:Name', words.own(name)],
            ['cbc:Value', words.own(value)],
          ],
        ]),
    ],
  ];
}

/** Standard rate, or zero rated; as UN/ECE 5305 codes them, under value added tax. */
const taxCategory = (name: string, rate: ExactText): Element => [
  name,
  [
    ['cbc:ID', exact(rate).isZero() ? 'Z' : 'S'],
    ['cbc:Percent', exact(rate).times(100).toFixed()],
    ['cac:TaxScheme', [['cbc:ID', 'VAT']]],
  ],
];

interface PartyGiven {
  name: string;
  identity: string;
  contact: string;
  contactEmail: string;
  taxNumber: string;
}

function party(of: PartyGiven, at: Omit<PaperAddress, 'kind'> | undefined): Element {
  return [
    'cac:Party',
    [
      ...(of.identity === '' ? [] : [['cac:PartyIdentification', [['cbc:ID', of.identity]]] as Element]),
      ['cac:PartyName', [['cbc:Name', of.name]]],
      ...(at ? [address('cac:PostalAddress', at)] : []),
      ...(of.taxNumber === ''
        ? []
        : [
            [
              'cac:PartyTaxScheme',
              [
                ['cbc:CompanyID', of.taxNumber],
                ['cac:TaxScheme', [['cbc:ID', 'VAT']]],
              ],
            ] as Element,
          ]),
      ['cac:PartyLegalEntity', [['cbc:RegistrationName', of.name]]],
      ...(of.contact === ''
        ? []
        : [
            [
              'cac:Contact',
              [
                ['cbc:Name', of.contact],
                ...(of.contactEmail === '' ? [] : [['cbc:ElectronicMail', of.contactEmail] as Element]),
              ],
            ] as Element,
          ]),
    ],
  ];
}

function address(name: string, at: Omit<PaperAddress, 'kind'> | undefined): Element {
  return [
    name,
    at
      ? [
          ['cbc:StreetName', at.street],
          ['cbc:CityName', at.town],
          ['cbc:PostalZone', at.postcode],
          ['cac:Country', [['cbc:IdentificationCode', at.country]]],
        ]
      : [],
  ];
}

const addressOf = ({ customer: { addresses } }: PaperGiven, kind: string): PaperAddress | undefined =>
  addresses.find((each) => each.kind === kind) ?? addresses[0];

const escaped = (text: string): string =>
  text
    // XML 1.0 has no place for control characters.
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(
      /[&<>"]/g,
      (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter] as string,
    );

function xmlOf([name, content, attributes = {}]: Element, depth: number): string {
  const pad = '  '.repeat(depth);
  const more = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escaped(value)}"`)
    .join('');
  if (typeof content === 'string') return `${pad}<${name}${more}>${escaped(content)}</${name}>\n`;
  const inner = inOrder(
    name,
    content.flatMap((each) => (each ? [each] : [])),
  )
    .map((each) => xmlOf(each, depth + 1))
    .join('');
  return inner === '' ? '' : `${pad}<${name}${more}>\n${inner}${pad}</${name}>\n`;
}

/** Children in the order of the schema; one that it does not have there is a mistake of ours. */
function inOrder(name: string, children: readonly Element[]): Element[] {
  const order = orderOf(name);
  const at = ([child]: Element): number => {
    const found = order.indexOf(child);
    if (found < 0) throw new Error(`${child} has no place in ${name}`);
    return found;
  };
  return [...children].sort((a, b) => at(a) - at(b));
}
