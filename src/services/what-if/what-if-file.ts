/** What something would do out there, as a file for spreadsheets. */
import type { FileAnswer, WhatIfDocument, WhatIfQuery } from '../../contract';
import { plainPercent } from '../../core/exact';
import { connected } from '../../data';
import { translator } from '../../i18n';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { askLongPapers } from '../kernel/papers';

const media = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};

/** All documents of a job, those that somebody must decide first, as CSV or XLSX. */
export async function whatIfFile(
  actor: Actor,
  job: string,
  name: string,
  format: string,
  { is }: Pick<WhatIfQuery, 'is'>,
): Promise<Result<FileAnswer>> {
  if (format !== 'csv' && format !== 'xlsx') return fail('missing', { code: 'file.format' });
  const t = translator(actor.language);
  const found = await connected().records.whatIfs.findAll({
    where: { job, ...(is === undefined ? {} : { verdict: is }) },
    order: [['position', 'ASC']],
    raw: true,
  });
  const order = ['decide', 'other', 'same'];
  const rows = found
    .map(({ row }) => row as WhatIfDocument)
    .sort((one, other) => order.indexOf(one.is) - order.indexOf(other.is));
  const share = (margin: string | null): string => (margin === null ? '' : plainPercent(margin));
  const cells = rows.map(({ is: verdict, at, customer, owner, currency, net, margin, signs, unsold }) => [
    t(`change.is.${verdict}`),
    at.number,
    at.title,
    customer,
    owner,
    currency,
    net.before,
    net.after,
    share(margin.before),
    share(margin.after),
    signs.after
      .filter((role) => !signs.before.includes(role))
      .map((role) => t(`role.${role}` as 'role.manager'))
      .join(', '),
    String(unsold.after),
  ]);
  return done({
    name: `${name.replace(/[^\p{L}\p{N} ._-]/gu, '_')}.${format}`,
    type: media[format],
    bytes: await askLongPapers('sheet', {
      name: name.slice(0, 30),
      rows: [fileColumns.map((column) => t(`change.file.${column}`)), ...cells],
      format,
    }),
  });
}

const fileColumns = [
  'is',
  'number',
  'title',
  'customer',
  'owner',
  'currency',
  'netBefore',
  'netAfter',
  'marginBefore',
  'marginAfter',
  'signs',
  'unsold',
] as const;
