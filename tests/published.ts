/**
 * Publishing the next version of a model without looking at what it changes, as no modeller can: straight into the
 * database that the tests have.
 */
import { createHash, randomUUID } from 'node:crypto';
import pg from 'pg';
import { compileModel, type ModelDocument } from '../src/core/model';

type Writable<T> = T extends object ? { -readonly [K in keyof T]: Writable<T[K]> } : T;

export async function publishNext(
  modelId: string,
  change: (document: Writable<ModelDocument>) => void,
): Promise<void> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    const { rows } = await client.query<{ number: number; document: ModelDocument }>(
      'select number, document from model_versions where model_id = $1 order by number desc limit 1',
      [modelId],
    );
    const [last] = rows;
    if (!last) throw new Error(`${modelId} is not published`);
    const document = structuredClone(last.document) as Writable<ModelDocument>;
    change(document);
    const compiled = compileModel(document);
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
    const text = JSON.stringify(document);
    const id = randomUUID();
    await client.query(
      'insert into model_versions (id, model_id, number, document, hash) values ($1, $2, $3, $4, $5)',
      [id, modelId, last.number + 1, text, createHash('sha256').update(text).digest('hex')],
    );
    await client.query('insert into model_releases (version_id, in_force) values ($1, current_date)', [id]);
  } finally {
    await client.end();
  }
}
