/** Publishes the generated large model beside the demo's models, to try the Bench at its size. */
import { generatedModel, large } from '../src/core/engine/testing/generated-models';
import { freshItem } from '../src/core/items';
import { connected } from '../src/data';
import { publish } from '../src/services/catalogue/models';

await connected().transaction(async () => {
  const { items, families } = connected().records;
  const family = await families.findOne({ order: [['position', 'DESC']] });
  const [head] = await items.findOrCreate({
    where: { sku: 'GENERATED' },
    defaults: {
      ...freshItem('GENERATED', family?.code ?? ''),
      name: { en: 'Generated model', de: 'Erzeugtes Modell' },
      kind: 'model',
      leadDays: 1,
      sold: false,
      version: 1,
    },
  });
  const { problems } = await publish({ ...generatedModel(large), id: 'generated' }, head.sku, null);
  if (problems.length > 0) throw new Error(JSON.stringify(problems.slice(0, 3)));
});
await connected().close();
