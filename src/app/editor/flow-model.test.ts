import { beforeEach, describe, expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { produce } from 'immer';
import { addNode, connect, renameNode, setControl } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { flowEdges, flowNodes, leftPorts, lowerPorts, wireColour } from './flow-model';

describe('the patch as its canvas draws it', () => {
  let scene: Scene;
  let noise: string;
  let blur: string;
  let swing: string;
  let picture: string;
  let driven: string;

  beforeEach(() => {
    scene = makeScene(catalogue, 's', 'Flow');
    noise = addNode(scene, catalogue, 'noise', [10, 20]);
    blur = addNode(scene, catalogue, 'blur', [200, 20]);
    swing = addNode(scene, catalogue, 'oscillator', [200, 300]);
    picture = connect(scene, catalogue, noise, blur, 'picture');
    driven = connect(scene, catalogue, swing, blur, 'radius');
  });

  const card = (id: string, selection: string[] = []) =>
    flowNodes(scene, selection).find((node) => node.id === id)!;

  test('has a card for each node, at its place', () => {
    expect(flowNodes(scene, [])).toHaveLength(Object.keys(scene.nodes).length);
    expect(card(noise)).toMatchObject({ type: 'card', position: { x: 10, y: 20 }, selected: false });
    expect(card(noise, [noise]).selected).toBe(true);
  });

  test('shows controls that are driven, and no others', () => {
    expect(card(blur).data.driven).toEqual(['radius']);
    expect(card(noise).data.driven).toEqual([]);
    delete scene.wires[driven];
    expect(card(blur).data.driven).toEqual([]);
  });

  test('keeps the identity of cards that did not change, so that they are not drawn again', () => {
    const before = card(blur);
    expect(card(blur)).toBe(before);
    renameNode(scene, noise, 'Fog');
    expect(card(blur)).toBe(before);
    expect(card(blur, [blur])).not.toBe(before);
    delete scene.wires[driven];
    expect(card(blur)).not.toBe(before);
  });

  test('stays the same while only values change, list and all', () => {
    const [cards, lines] = [flowNodes(scene, []), flowEdges(scene, null)];
    scene = produce(scene, (draft) => setControl(draft, blur, 'radius', 0.02));
    expect(flowNodes(scene, [])).toBe(cards);
    expect(flowEdges(scene, null)).toBe(lines);
    scene = produce(scene, (draft) => void (draft.nodes[blur].on = false));
    expect(flowNodes(scene, [])).not.toBe(cards);
    expect(flowEdges(scene, null)).toBe(lines);
  });

  test('knows what a return wire enters', () => {
    expect(card(blur).data.loops).toBe(false);
    const blend = addNode(scene, catalogue, 'blend', [0, 0]);
    connect(scene, catalogue, blend, blur, 'picture');
    connect(scene, catalogue, blur, blend, 'picture');
    expect(card(blend).data.loops).toBe(true);
    expect(card(blur).data.loops).toBe(false);
  });

  test('has a line for each wire, which says in words where it goes', () => {
    const edges = new Map(flowEdges(scene, driven).map((edge) => [edge.id, edge]));
    expect(edges.get(picture)).toMatchObject({
      source: noise,
      target: blur,
      targetHandle: 'picture',
      data: { carries: 'image' },
      selected: false,
      ariaLabel: 'Wire from Noise to Blur, Picture',
    });
    expect(edges.get(driven)).toMatchObject({
      data: { carries: 'signal' },
      selected: true,
      ariaLabel: 'Wire from Oscillator to Blur, Radius',
    });
  });

  test('keeps the identity of lines that did not change, and makes those again that look otherwise', () => {
    const of = (...rest: Parameters<typeof flowEdges> extends [unknown, ...infer R] ? R : never) =>
      flowEdges(scene, ...rest).find(({ id }) => id === picture)!;
    const before = of(null);
    scene.nodes[noise].controls.period = 2;
    expect(of(null)).toBe(before);
    expect(of(picture)).not.toBe(before);
    expect(of(null, new Map([[picture, [3, 4]]])).data).toMatchObject({ joint: [3, 4], aside: false });
    expect(of(null, null, new Set([noise])).data).toMatchObject({ aside: true });
    renameNode(scene, noise, 'Mist');
    expect(of(null).ariaLabel).toContain('Mist');
  });

  test('steps back with cards that are not in focus', () => {
    const aside = (id: string, focused: Set<string> | null) =>
      flowNodes(scene, [], focused).find((node) => node.id === id)!.data.aside;
    expect(aside(noise, null)).toBe(false);
    expect(aside(noise, new Set([noise]))).toBe(false);
    expect(aside(blur, new Set([noise]))).toBe(true);
  });

  test('draws no line to or from a node that is gone', () => {
    delete scene.nodes[noise];
    expect(flowEdges(scene, null).map(({ id }) => id)).toEqual([driven]);
  });

  test('draws nodes of a kind that is not known, and what leaves them', () => {
    scene.nodes[noise] = { ...scene.nodes[noise], kind: 'from-the-future' };
    expect(card(noise).data.driven).toEqual([]);
    expect(flowEdges(scene, null).find(({ id }) => id === picture)?.source).toBe(noise);
  });
});

describe('ports of a card', () => {
  test('are on the left for what runs, below for signals', () => {
    const instances = catalogue.get('instances')!;
    const left = leftPorts(instances).map(({ port }) => port);
    const below = lowerPorts(instances, ['size', 'place.x']).map(({ port }) => port);
    expect(left).toContain('body');
    expect(below).toEqual(expect.arrayContaining(['size', 'place.x']));
    expect(left.filter((port) => below.includes(port))).toEqual([]);
  });

  test('of every kind stand on one side or the other', () => {
    for (const kind of catalogue.values()) {
      const sides = [...leftPorts(kind), ...lowerPorts(kind, [])].map(({ port }) => port);
      expect(sides.sort()).toEqual(Object.keys(kind.inputs).sort());
    }
  });

  test('have the colour of what they carry', () => {
    expect(wireColour('signal')).toBe('var(--wire-signal)');
  });
});
