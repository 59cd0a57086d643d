/** Documents that can go along with a mail. */
import type { OfferedDocument } from '../../contract';
import { connected } from '../../data';
import { own } from '../../i18n';
import type { Actor } from '../access/actor';
import { versionById } from '../catalogue/models';
import { attachmentsOf } from '../colleagues/view';
import { proposedAnnexes } from '../paper/data-sheets';
import { stateOf } from '../quotes/quote-state';
import { reference } from '../settings/reference-data';
import type { Subject } from './about';

const formats = ['pdf', 'docx', 'xlsx', 'xml'] as const;

/** All of a quote, or of a build; the usual ones are chosen at first. */
export async function offeredDocuments(
  actor: Actor,
  { quote, revision, build }: Subject,
): Promise<OfferedDocument[]> {
  if (build) return ofBuild(build.id, build.modelVersionId, undefined, true);
  const state = quote && revision && (await stateOf(quote, revision.number));
  if (!state) return [];
  const { items } = await reference();
  const builds = await Promise.all(
    state.lines.flatMap((line) => {
      const made = line.buildId === null ? undefined : state.builds.get(line.buildId);
      return made ? [ofBuild(made.id, made.modelVersionId, line.position, false)] : [];
    }),
  );
  const attached = await attachmentsOf(quote.id);
  const sheets = await proposedAnnexes(state, []);
  return [
    ...formats.map((format): OfferedDocument => ({
      wanted: { is: 'quotation', format },
      name: format,
      usual: format === 'pdf',
    })),
    ...builds.flat(),
    ...sheets.map(({ file, sku, name }): OfferedDocument => ({
      wanted: { is: 'file', file },
      name: own(name, actor.language) || own(items.get(sku)?.name ?? {}, actor.language) || sku,
      usual: false,
    })),
    ...attached.map(({ file, name }): OfferedDocument => ({
      wanted: { is: 'file', file },
      name,
      usual: false,
      attached: true,
    })),
  ];
}

async function ofBuild(
  id: string,
  version: string,
  line: number | undefined,
  usual: boolean,
): Promise<OfferedDocument[]> {
  const { name } = await versionById(version);
  const at = line === undefined ? {} : { line };
  const drawn = await connected().sequelize.query<{ drawn: boolean }>(
    `select document -> 'drawing' is not null as drawn from model_versions where id = $1`,
    { bind: [version], type: 'SELECT' as never },
  );
  const [row] = drawn as unknown as { drawn: boolean }[];
  return [
    { wanted: { is: 'specification', build: id }, name, ...at, usual },
    ...(row?.drawn === true
      ? [{ wanted: { is: 'drawings', build: id }, name, ...at, usual: false } as const]
      : []),
  ];
}
