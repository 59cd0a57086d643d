/** The specification sheet of a build, without prices, and all its drawings as one archive. */
import type { FileAnswer } from '../../contract';
import { usualColour } from '../../core/paper';
import type { PageDocument } from '../../core/sending';
import type { Actor } from '../access/actor';
import { fileName } from '../builds/drawings';
import { findBuild, type Found } from '../builds/find-build';
import { versionById } from '../catalogue/models';
import { today } from '../kernel/clock';
import { askEngine } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { askPapers } from '../kernel/papers';
import { invoicedIn } from '../settings/addressed';
import { housePart, marketIn } from '../settings/house';
import { buildsOnPaper, houseOf } from './given';
import { bytesOf } from './given-bytes';
import type { SheetGiven } from './files/specification-file';

const media = new Map([
  ['pdf', 'application/pdf'],
  ['docx', 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'],
  ['html', 'text/html; charset=utf-8'],
] as const);

/** The specification sheet of a build in a format, in the language of whoever asks. */
export async function specification(actor: Actor, id: string, format: string): Promise<Result<FileAnswer>> {
  const type = media.get(format as 'pdf');
  if (type === undefined) return fail('missing', { code: 'file.format' });
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const given = await sheetOf(actor, found.value);
  return done({
    name: `${fileName(given.specification.partNumber)}-specification.${format}`,
    type,
    bytes: await askPapers('specification', { ...given, format: format as 'pdf' }),
    ...(format === 'html'
      ? {
          headers: {
            'content-security-policy':
              "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
          },
        }
      : {}),
  });
}

/** All drawings of a build in one archive. */
export async function drawingsArchive(actor: Actor, id: string): Promise<Result<FileAnswer>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build } = found.value;
  const title = build.outcome.partNumber;
  const files = await askEngine('drawings', {
    version: build.modelVersionId,
    values: build.outcome.values,
    title,
    language: actor.language,
    day: today(),
    author: (await housePart('company')).name,
  });
  if (Object.keys(files).length === 0) return fail('missing', { code: 'drawing.missing' });
  const sheet = await sheetOf(actor, found.value);
  return done({
    name: `${fileName(title)}-drawings.zip`,
    type: 'application/zip',
    bytes: await askPapers('drawingsArchive', { sheet, files, folder: fileName(title) }),
  });
}

/** The specification sheet of a build for a page, in the language of whoever asks. */
export const specificationPage = async (actor: Actor, found: Found): Promise<PageDocument> =>
  askPapers('specificationPage', await sheetOf(actor, found));

async function sheetOf(actor: Actor, { build, home }: Found): Promise<SheetGiven> {
  const dealer = home.of === 'quote' ? home.quote.dealer : null;
  const market =
    home.of === 'quote' ? await marketIn(invoicedIn(home.revision.customer)) : await marketIn('');
  const [told] = await buildsOnPaper([build], { units: actor.preferences.units ?? actor.units, drawn: true });
  const house = await houseOf(dealer);
  const head = await versionById(build.modelVersionId);
  return {
    specification: {
      name: head.name,
      partNumber: build.outcome.partNumber,
      day: today(),
      house,
      build: told ?? { rows: [], sections: {}, figures: [], inside: [], views: [] },
    },
    look: { language: actor.language, paper: market.paper, colour: usualColour },
    files: await bytesOf(house.mark === null ? [] : [house.mark]),
  };
}
