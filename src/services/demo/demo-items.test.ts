import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { freshFamily, freshItem, familyProblems, itemProblems, type Item } from '../../core/items';
import { safeDrawing } from '../files/svg';
import { drawingText, type DrawingsFile } from './demo-drawings';
import type { FamilyFile, ItemFile, PriceListFile } from './demo-files';

const read = <T>(name: string): T => JSON.parse(readFileSync(`demo/${name}`, 'utf8')) as T;
const families = new Map(
  read<FamilyFile[]>('families.json').map((family) => [family.code, { ...freshFamily(family.code), ...family }]),
);
const items = new Map(
  read<ItemFile[]>('items.json').map((item): [string, Item] => [
    item.sku,
    { ...freshItem(item.sku, item.family), ...item },
  ]),
);
const drawings = read<DrawingsFile>('drawings.json');

describe('what the demo sells', () => {
  it('is 150 items and more, each told to customers and to colleagues in both languages, with properties', () => {
    expect(items.size).toBeGreaterThanOrEqual(150);
    for (const { sku, says, note, name, properties } of items.values())
      for (const language of ['en', 'de'])
        expect(
          [says, note, name].every((texts) => (texts[language] ?? '') !== '') &&
            Object.keys(properties).length > 0,
          `${sku} in ${language}`,
        ).toBe(true);
  });

  it('could be kept as it is by whoever keeps items', () => {
    const around = { families, items };
    for (const family of families.values()) expect(familyProblems(family, families)).toEqual([]);
    for (const item of items.values()) expect(itemProblems(item, around), item.sku).toEqual([]);
  });

  it('has a price in each list where it is sold by itself', () => {
    const lists = read<PriceListFile[]>('price-lists.json');
    const missing = lists.flatMap(({ code, entries }) =>
      [...items.values()]
        .filter(({ sold, kind, sku }) => sold && kind !== 'model' && !(sku in entries))
        .map(({ sku }) => `${code} ${sku}`),
    );
    expect(missing).toEqual([]);
  });

  it('has a drawing of its own for each item, of which nothing is lost where it is made safe', () => {
    expect(Object.keys(drawings.items).sort()).toEqual([...items.keys()].sort());
    const drawn = Object.entries(drawings.items).map(([sku, drawing]) => {
      const text = drawingText(drawings, drawing);
      const safe = safeDrawing(text);
      expect(safe, sku).toMatchObject({ width: 240, height: 150 });
      const shapesIn = (svg: string): number => svg.match(/<(path|rect|circle|text)\b/g)?.length ?? 0;
      expect(shapesIn(safe?.text ?? ''), sku).toBe(shapesIn(text));
      expect(text, sku).not.toMatch(/\{\w*\}|undefined/);
      return text;
    });
    expect(new Set(drawn).size).toBe(drawn.length);
  });
});
