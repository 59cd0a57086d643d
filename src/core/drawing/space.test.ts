import { describe, expect, it } from 'vitest';
import { meshOf } from './mesh';
import type { Scene, Solid } from './scene';
import { spaceViewOf } from './space';

const box = (id: string, at: [number, number, number], size: [number, number, number]): Solid => ({
  id,
  layer: 'A',
  looks: 'steel',
  kind: 'box',
  at,
  size,
});
const scene = (solids: Solid[]): Scene => ({ solids, labels: [], measures: [], waits: [] });
const firstOf = (ids: readonly string[], id: string): number =>
  ids.findIndex((each) => each.startsWith(`${id}.`));

describe('a scene in space', () => {
  it('shows of a box the three faces that are turned to whoever looks, the upper one lighter', () => {
    const { figures, frame } = spaceViewOf(scene([box('a', [0, 0, 0], [100, 50, 20])]));
    expect(figures).toHaveLength(3);
    expect(Math.max(...figures.map(({ shade = 0 }) => shade))).toBeGreaterThan(0.1);
    expect(Math.min(...figures.map(({ shade = 0 }) => shade))).toBeLessThan(0);
    expect([frame.right > frame.left, frame.top > frame.bottom]).toEqual([true, true]);
  });

  it('draws what stands on, before or to the right of something after it, however they are given', () => {
    const deck = box('deck', [0, 0, 0], [1000, 300, 30]);
    const truck = box('truck', [100, 50, 30], [700, 200, 250]);
    const post = box('post', [500, -100, 0], [20, 20, 400]);
    for (const order of [
      [deck, truck, post],
      [post, truck, deck],
      [truck, post, deck],
    ]) {
      const ids = spaceViewOf(scene(order)).figures.map(({ id }) => id);
      expect(firstOf(ids, 'deck')).toBeLessThan(firstOf(ids, 'truck'));
      expect(firstOf(ids, 'truck')).toBeLessThan(firstOf(ids, 'post'));
    }
  });

  it('has room for every corner of the bodies as triangles, round ones too', () => {
    const wheel: Solid = {
      id: 'w',
      layer: 'A',
      looks: 'dark',
      kind: 'cylinder',
      along: 'y',
      at: [0, 0, 50],
      radius: 50,
      radiusTo: 50,
      length: 30,
    };
    const { frame, figures } = spaceViewOf(scene([wheel]));
    expect(figures.length).toBeGreaterThan(8);
    expect(meshOf(wheel).positions.length).toBeGreaterThan(0);
    expect(frame.top - frame.bottom).toBeGreaterThan(95);
  });

  it('leaves out what is for other views, and of nothing shows nothing', () => {
    const hidden: Solid = { ...box('a', [0, 0, 0], [1, 1, 1]), views: ['side'] };
    expect(spaceViewOf(scene([hidden])).figures).toEqual([]);
  });
});
