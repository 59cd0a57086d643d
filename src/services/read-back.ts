/** From a part number, of whatever model it is, back to the build it stands for. */
import { readNumber, type Context, type Decision } from '../core/engine';
import { withoutSpecial } from '../core/numbering';
import { specialOf, type SpecialPart } from '../core/quoting';
import { connected, type ModelVersionRow } from '../data';
import { done, fail, type Failure, type Result } from './failure';
import { engineOf, newestVersion } from './models';

/** The build a part number stands for, on the newest version of its model; else what is wrong with it, and where. */
export async function readBack(typed: string, context: Context): Promise<Result<{ version: ModelVersionRow; decisions: Decision[]; special: SpecialPart[] }>> {
  const { text, special: number } = withoutSpecial(typed.trim().toUpperCase());
  const models = await connected().records.models.findAll({ order: [['id', 'ASC']] });
  let nearest: { read: number; failure: Failure } = { read: -1, failure: { code: 'number.unknown', params: { text: typed } } };
  for (const { id } of models) {
    const version = await newestVersion(id ?? undefined);
    if (!version) continue;
    const registered = await connected().records.registeredNumbers.findAll({ where: { modelId: id }, raw: true });
    const special = number === undefined ? [] : (registered.flatMap((row) => (row.number === number ? (specialOf(row.key) ?? []) : [])));
    const answer = readNumber(engineOf(version, context), text, (sequence) => decisionsOf(registered.find((row) => row.number === sequence)?.key));
    if (answer.is === 'build' && (number === undefined || special.length > 0)) return done({ version, decisions: answer.decisions, special });
    const read = answer.is === 'unreadable' ? answer.at : text.length;
    if (read > Math.max(nearest.read, 1)) nearest = { read, failure: failureOf(answer, typed, id) };
  }
  return fail('invalid', { ...nearest.failure, field: 'partNumber' });
}

function failureOf(answer: ReturnType<typeof readNumber>, text: string, model: string): Failure {
  if (answer.is === 'unreadable') return { code: 'number.unreadable', params: { text, model, rest: text.slice(answer.at) || '…', allowed: answer.allowed.slice(0, 12).join(', ') } };
  return answer.is === 'forbidden' ? { code: 'number.forbidden', params: { text, model } } : { code: 'number.unknown', params: { text } };
}

/** What a registered number says: "customWidth=3.85;..." */
const decisionsOf = (key: string | undefined): Decision[] =>
  (key === undefined || specialOf(key) ? [] : key.split(';')).flatMap((part) => {
    const [on = '', value = ''] = part.split('=');
    return value === '' || value === 'null' ? [] : [{ on, value }];
  });
