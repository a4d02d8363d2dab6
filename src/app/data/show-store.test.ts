import { afterAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { makeShow } from '../../core/show/create';
import { addNode, EditError, setControl } from '../../core/show/edit';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { installFakeBrowser } from '../testing/fake-browser';

jest.useFakeTimers();
afterAll(() => void jest.useRealTimers());
installFakeBrowser();
const { editScene, editShow, endGesture, openShow, redo, showStore, takeFromOthers, undo } =
  await import('./show-store');
const { ownership } = await import('./ownership');

describe('the open show', () => {
  let scene: string;
  let noise: string;
  const now = (): Show => showStore.getState().show;
  const period = (): unknown => now().scenes[0].nodes[noise].controls.period;
  const drag = (value: number, gesture: string | null = 'period'): void =>
    void editScene(scene, (draft) => setControl(draft, noise, 'period', value), gesture);

  beforeEach(() => {
    const show = makeShow(catalogue, 'Night');
    noise = addNode(show.scenes[0], catalogue, 'noise', [0, 0]);
    scene = show.scenes[0].id;
    ownership.setState({ elsewhere: false });
    openShow('id', show);
  });

  test('is changed by a recipe, which gives what it gives', () => {
    const before = now();
    expect(editShow((show) => (show.name = 'Late'))).toBe('Late');
    expect(now().name).toBe('Late');
    expect(before.name).toBe('Night');
    expect(now().scenes).toBe(before.scenes);
  });

  test('stays the very same where a recipe changes nothing', () => {
    const before = now();
    editShow((show) => void (show.name = 'Night'));
    expect(now()).toBe(before);
    undo();
    expect(now()).toBe(before);
  });

  test('is undone without what somebody else did meanwhile', () => {
    const start = period();
    drag(0.5, null);
    takeFromOthers({ ...now(), name: 'Theirs' });
    drag(0.6, null);
    expect(now().name).toBe('Theirs');
    undo();
    undo();
    expect(period()).toBe(start);
    expect(now().name).toBe('Theirs');
    undo();
    expect(now().name).toBe('Theirs');
    takeFromOthers({ ...now(), name: 'Theirs again' });
    redo();
    redo();
    expect(period()).toBe(0.6);
    expect(now().name).toBe('Theirs again');
  });

  test('is undone and made again step by step', () => {
    const start = period();
    drag(0.5, null);
    drag(0.6, null);
    undo();
    expect(period()).toBe(0.5);
    undo();
    expect(period()).toBe(start);
    undo();
    expect(period()).toBe(start);
    redo();
    redo();
    expect(period()).toBe(0.6);
  });

  test('takes all moves of one drag as one step', () => {
    const start = period();
    for (let k = 1; k <= 20; k++) drag(k / 20);
    endGesture();
    for (let k = 1; k <= 20; k++) drag(1 + k / 20);
    undo();
    expect(period()).toBe(1);
    undo();
    expect(period()).toBe(start);
  });

  test('ends a step where something else is edited, or something is undone', () => {
    drag(0.5);
    editShow((show) => void (show.name = 'Late'));
    drag(0.6);
    undo();
    expect([period(), now().name]).toEqual([0.5, 'Late']);
    drag(0.7);
    drag(0.8);
    undo();
    expect(period()).toBe(0.5);
  });

  test('is left as it is by an edit that makes no sense, which is said', () => {
    const before = now();
    expect(
      editShow(() => {
        throw new EditError('That would not do.');
      }),
    ).toBeNull();
    expect(now()).toBe(before);
    expect(editScene('gone', () => 1)).toBeNull();
  });

  test('does not hide faults of the program itself', () => {
    expect(() =>
      editShow(() => {
        throw new RangeError('A fault.');
      }),
    ).toThrow(RangeError);
  });

  test('is neither edited nor undone here while another tab has it', () => {
    drag(0.5, null);
    ownership.setState({ elsewhere: true });
    drag(0.9, null);
    undo();
    expect(period()).toBe(0.5);
    ownership.setState({ elsewhere: false });
    undo();
    expect(period()).not.toBe(0.5);
  });

  test('that is opened has nothing to undo', () => {
    drag(0.5, null);
    openShow('other', makeShow(catalogue, 'Day'));
    undo();
    expect(now().name).toBe('Day');
    expect(showStore.getState().id).toBe('other');
  });
});
