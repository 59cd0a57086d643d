/** What positions are of, as that stands by now: a line in the newest revision of its quote, a build, an item. */
import { Op, QueryTypes } from 'sequelize';
import { Exact } from '../../core/exact';
import type { Texts } from '../../core/model';
import type { PositionOf } from '../../core/schedule';
import type { PositionView } from '../../contract';
import { connected, type BuildRow, type SchedulePositionRow } from '../../data';
import { versionById } from '../catalogue/models';
import { isReference } from '../kernel/reference';
import { reference } from '../settings/reference-data';

/** A position with its build, where it is of one. */
export interface Told {
  view: PositionView;
  build: BuildRow | null;
}

interface LineNow {
  quoteId: string;
  origin: string;
  number: string;
  sku: string;
  buildId: string | null;
}

/** What a row is of. */
export const ofRow = ({ quoteId, lineOrigin, buildId, sku, words }: SchedulePositionRow): PositionOf =>
  lineOrigin !== null
    ? { is: 'line', quote: quoteId ?? '', line: lineOrigin }
    : buildId !== null
      ? { is: 'build', build: buildId }
      : sku !== null
        ? { is: 'item', sku }
        : { is: 'words', text: words };

/** All positions of a schedule in their order, each with what it is of; in few queries, however many there are. */
export async function toldPositions(scheduleId: string): Promise<Told[]> {
  const { schedulePositions, builds } = connected().records;
  const rows = await schedulePositions.findAll({
    where: { scheduleId },
    order: [['position', 'ASC']],
    raw: true,
  });
  const lines = await linesNow([...new Set(rows.flatMap(({ quoteId }) => quoteId ?? []))]);
  const at = (row: SchedulePositionRow): LineNow | undefined =>
    row.lineOrigin === null ? undefined : lines.get(lineKey(row.quoteId ?? '', row.lineOrigin));
  const ids = [...new Set(rows.flatMap((row) => at(row)?.buildId ?? row.buildId ?? []))];
  const made = new Map(
    (ids.length === 0 ? [] : await builds.findAll({ where: { id: { [Op.in]: ids } }, raw: true })).map(
      (build) => [build.id, build],
    ),
  );
  const { items } = await reference();
  const names = new Map<string, Texts>();
  for (const { modelVersionId } of made.values())
    if (!names.has(modelVersionId)) names.set(modelVersionId, (await versionById(modelVersionId)).name);
  return rows.map((row): Told => {
    const line = at(row);
    const build = made.get(line?.buildId ?? row.buildId ?? '') ?? null;
    const sku = build ? null : (line?.sku ?? row.sku);
    const item = sku === null ? undefined : items.get(sku);
    const gone = row.lineOrigin !== null ? !line : row.sku !== null && !item;
    return {
      build,
      view: {
        id: row.id,
        tag: row.tag,
        area: row.area,
        quantity: new Exact(row.quantity).toString(),
        remark: row.remark,
        of: ofRow(row),
        name: build ? (names.get(build.modelVersionId) ?? {}) : (item?.name ?? wordsOf(row.words)),
        number: build?.outcome.partNumber ?? sku ?? '',
        build: build?.id ?? null,
        quote: line?.number ?? null,
        gone,
        unfinished: build !== null && !build.outcome.complete,
      },
    };
  });
}

/** The same words in every language, as somebody typed them. */
const wordsOf = (words: string): Texts => (words === '' ? {} : { en: words, de: words });

const lineKey = (quote: string, line: string): string => `${quote} ${line}`;

/** Which of some lines stand in the newest revision of their quotes, of quotes `q` that a condition lets through. */
export async function standingLines(
  lines: readonly Extract<PositionOf, { is: 'line' }>[],
  condition: string,
): Promise<(of: Extract<PositionOf, { is: 'line' }>) => boolean> {
  const found = await linesNow([...new Set(lines.map(({ quote }) => quote).filter(isReference))], condition);
  return ({ quote, line }) => found.has(lineKey(quote, line));
}

/** Lines of the newest revisions of quotes, by quote and origin. */
async function linesNow(quotes: readonly string[], condition = 'true'): Promise<Map<string, LineNow>> {
  if (quotes.length === 0) return new Map();
  const rows = await connected().sequelize.query<LineNow>(
    `select q.id as "quoteId", l.origin, q.number, l.sku, l.build_id as "buildId"
     from quotes q join lateral (select id from quote_revisions r where r.quote_id = q.id order by r.number desc limit 1) r on true
       join quote_lines l on l.revision_id = r.id
     where q.id = any($1::uuid[]) and ${condition} order by l.position`,
    { bind: [[...quotes]], type: QueryTypes.SELECT },
  );
  return new Map(rows.map((row) => [lineKey(row.quoteId, row.origin), row]));
}
