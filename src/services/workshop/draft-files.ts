/** Parts of a draft as files, and files to be taken into one. */
import type { DraftFileQuery, FileTables, ImpactRow } from '../../contract';
import { outlineSheet, tableOf, wordsSheet, type Sheet } from '../../core/modelling';
import type { ModelDocument, Rule } from '../../core/model';
import { connected } from '../../data';
import { translator } from '../../i18n';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { askPapers, readingFile } from '../kernel/papers';
import { openDraft } from './draft-row';

interface MadeFile {
  name: string;
  type: string;
  bytes: Uint8Array | string;
}

const types = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  json: 'application/json; charset=utf-8',
  dmn: 'application/xml; charset=utf-8',
};

/** A part of a draft as a file. Documents are JSON, decision tables DMN, everything else is for spreadsheets. */
export async function draftFile(
  actor: Actor,
  id: string,
  format: string,
  { part, rule }: DraftFileQuery,
): Promise<Result<MadeFile>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const { document, hash } = found.value;
  // Only what is a table's id may stand in a name.
  const called = rule !== undefined && tablesOf(document, rule).length > 0 ? rule : part;
  const named = (ending: keyof typeof types, bytes: Uint8Array | string): Result<MadeFile> =>
    done({ name: `${document.id}-${called}.${ending}`, type: types[ending], bytes });
  if (part === 'document' && format === 'json') return named('json', JSON.stringify(document, null, 2));
  if ((part === 'table' || part === 'tables') && format === 'dmn') {
    const tables = tablesOf(document, rule).map((each) => tableOf(each, document, actor.language));
    return tables.length === 0
      ? fail('missing', { code: 'draft.noTable' })
      : named('dmn', await askPapers('asDmn', { name: document.id, tables }));
  }
  if (format !== 'csv' && format !== 'xlsx') return fail('missing', { code: 'file.format' });
  const sheet = await sheetOf(actor, { id, hash, document }, part, rule);
  return sheet
    ? named(format, await askPapers('sheet', { name: called, rows: sheet, format }))
    : fail('missing', { code: part === 'impact' ? 'draft.noImpact' : 'draft.noTable' });
}

type Table = Extract<Rule, { kind: 'table' }>;
const tablesOf = ({ rules }: ModelDocument, id: string | undefined): Table[] =>
  rules.flatMap((rule) => (rule.kind === 'table' && (id === undefined || rule.id === id) ? [rule] : []));

async function sheetOf(
  { language }: Actor,
  draft: { id: string; hash: string; document: ModelDocument },
  part: DraftFileQuery['part'],
  rule: string | undefined,
): Promise<Sheet | null> {
  const { document } = draft;
  switch (part) {
    case 'outline':
      return outlineSheet(document, language);
    case 'words':
      return wordsSheet(document);
    case 'impact':
      return impactSheet(draft, language);
    default: {
      const [table] = tablesOf(document, rule);
      return rule !== undefined && table ? [table.of, ...table.rows] : null;
    }
  }
}

/** What it would change out there, a build in each row. */
async function impactSheet(
  { id, hash }: { id: string; hash: string },
  language: string,
): Promise<Sheet | null> {
  const rows = await connected().records.modelImpacts.findAll({
    where: { draftId: id, hash },
    order: [['position', 'ASC']],
    raw: true,
  });
  if (rows.length === 0) return null;
  const t = translator(language);
  const head = [
    t('draft.release.what'),
    t('draft.release.where'),
    t('draft.release.owner'),
    t('draft.release.rows'),
    ...(['price', 'partNumber', 'days'] as const).flatMap((each) => {
      const title = t(`draft.release.${each}`);
      return [t('draft.release.before', { what: title }), t('draft.release.after', { what: title })];
    }),
  ];
  return [head, ...rows.map(({ row }) => impactLine(row, (is) => t(`draft.release.is.${is}`)))];
}

const impactLine = (
  { is, at, owner, rows, why, price, number, leadDays }: ImpactRow,
  said: (is: ImpactRow['is']) => string,
): string[] => [
  said(is),
  `${at.number} ${at.title}`,
  owner,
  [...rows, ...why].join(', '),
  price.before,
  price.after,
  number.before,
  number.after,
  String(leadDays.before ?? ''),
  String(leadDays.after ?? ''),
];

/** The decision tables of a file from outside. */
export const readTables = (bytes: Uint8Array): Promise<Result<FileTables>> =>
  readingFile(async () => {
    const read = await askPapers('dmn', { bytes });
    return read.is === 'tables'
      ? done({ tables: [...read.tables], notTaken: [...read.notTaken] })
      : fail('invalid', { code: 'file.unreadable' });
  });
