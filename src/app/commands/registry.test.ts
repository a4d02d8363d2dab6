import { transitionSeconds } from '../../core/show/transition';
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { makeShow } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { fakeLocks, FakeWorker, installFakeBrowser } from '../testing/fake-browser';

jest.useFakeTimers();
installFakeBrowser();
const { applies, commandFor, commandOf, commands, runCommand, titleOf } = await import('./registry');
const { commandGroups, groupOf } = await import('./command');
const { choose, sessionStore } = await import('../data/session');
const { openShow, showStore } = await import('../data/show-store');
const { engine } = await import('../engine/client');
const { performOn } = await import('../engine/perform');
performOn((command) => engine().perform(command));
const { liveStore } = await import('../engine/live');
const { patchActions, offerPatch } = await import('../actions/patch-actions');

const press = (
  key: string,
  held: Partial<Record<'ctrlKey' | 'shiftKey' | 'altKey' | 'metaKey', boolean>> = {},
) => ({ key, ctrlKey: false, shiftKey: false, altKey: false, metaKey: false, ...held }) as KeyboardEvent;
const idFor = (event: KeyboardEvent, isTyping = false): string | undefined => commandFor(event, isTyping)?.id;
const performed = (): unknown[] => FakeWorker.last.of('perform').map(({ command }) => command);
const at = (path: string): void => void (location.pathname = path);
const nodes = (): string[] => Object.keys(showStore.getState().show.scenes[0].nodes);

describe('the registry of commands', () => {
  let noise: string;

  beforeEach(() => {
    at('/build');
    const show = makeShow(catalogue, 'Night');
    noise = addNode(show.scenes[0], catalogue, 'noise', [0, 0]);
    openShow('id', show);
    sessionStore.setState({ sceneId: show.scenes[0].id, selection: [], wire: null });
    engine().open(show, show.scenes[0].id);
    FakeWorker.last.say({ type: 'ready' });
    fakeLocks.waiting.length = 0;
    FakeWorker.last.sent.length = 0;
  });

  test('has each id once, in a group that the menu knows', () => {
    const ids = commands.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const command of commands) expect(Object.keys(commandGroups)).toContain(groupOf(command));
  });

  test('has a label and a sentence for each, and no key twice', () => {
    for (const { label, help } of commands) {
      expect(label).toMatch(/^[A-Z]/);
      expect(help.length).toBeGreaterThan(label.length / 2);
      expect(help).not.toMatch(/\.$/);
    }
    const keys = commands.flatMap((command) => command.keys ?? []);
    expect(new Set(keys).size).toBe(keys.length);
  });

  test('refuses an id that nothing has', () => {
    expect(() => commandOf('edit.nothing')).toThrow(/edit.nothing/);
  });

  test('puts the first key into tooltips', () => {
    expect(titleOf(commandOf('edit.redo'))).toMatch(/\(Ctrl\+Shift\+Z\)$/);
    expect(titleOf(commandOf('scene.new'))).not.toMatch(/\(/);
  });

  test('finds commands by their keys', () => {
    expect(idFor(press('F9'))).toBe('stage.blackout');
    expect(idFor(press('z', { ctrlKey: true }))).toBe('edit.undo');
    expect(idFor(press('y', { metaKey: true }))).toBe('edit.redo');
    expect(idFor(press('?', { shiftKey: true }))).toBe('view.commands');
    expect(idFor(press('q'))).toBeUndefined();
  });

  test('leaves keys to a text that is typed, but for what can’t wait', () => {
    expect(idFor(press('z', { ctrlKey: true }), true)).toBeUndefined();
    expect(idFor(press('?'), true)).toBeUndefined();
    expect(idFor(press('F9'), true)).toBe('stage.blackout');
    expect(idFor(press('F8'), true)).toBe('stage.freeze');
  });

  test('has commands only where they apply', () => {
    const del = press('Delete');
    expect(idFor(del)).toBeUndefined();
    choose([noise]);
    expect(idFor(del)).toBe('edit.delete');
    at('/play');
    expect(idFor(del)).toBeUndefined();
    expect(applies(commandOf('scene.new'))).toBe(false);
    expect(idFor(press('F9'))).toBe('stage.blackout');
  });

  test('tells the engine of the performance', () => {
    for (const id of ['stage.blackout', 'stage.freeze', 'transport.play', 'transport.step'] as const)
      runCommand(id);
    runCommand('transport.start');
    expect(performed()).toEqual([
      { type: 'blackout' },
      { type: 'freeze' },
      { type: 'play', playing: false },
      { type: 'step' },
      { type: 'seek', time: 0, exactly: true },
    ]);
  });

  test('takes scenes with the fade of the show, and none that is on stage or missing', () => {
    const { id } = showStore.getState().show.scenes[0];
    const on = (program: object): void =>
      liveStore.setState({
        program: {
          ...liveStore.getState().program,
          program: '',
          incoming: null,
          fade: 0,
          next: null,
          ...program,
        },
      });
    on({ program: id });
    runCommand('stage.take');
    runCommand('stage.take-next');
    expect(performed()).toEqual([]);
    on({ program: 'other', next: id });
    runCommand('stage.take');
    runCommand('stage.take-next');
    const seconds = transitionSeconds(showStore.getState().show);
    expect(performed()).toEqual([
      { type: 'take', scene: id, seconds },
      { type: 'take-next', seconds },
    ]);
  });

  test('edits what is chosen, and undoes it', () => {
    const before = nodes();
    choose([noise]);
    runCommand('edit.duplicate');
    expect(nodes()).toHaveLength(before.length + 1);
    runCommand('edit.undo');
    expect(nodes()).toEqual(before);
    runCommand('edit.redo');
    expect(nodes()).toHaveLength(before.length + 1);
    choose([noise]);
    runCommand('edit.cut');
    expect(nodes()).not.toContain(noise);
    expect(sessionStore.getState().selection).toEqual([]);
    runCommand('edit.paste');
    expect(nodes()).toHaveLength(before.length + 1);
    runCommand('edit.all');
    expect(sessionStore.getState().selection).toEqual(nodes());
    runCommand('edit.none');
    expect(sessionStore.getState().selection).toEqual([]);
  });

  test('switches nodes off, and all on if any is off', () => {
    const isOn = (id: string): boolean => showStore.getState().show.scenes[0].nodes[id].on;
    choose([noise]);
    runCommand('edit.duplicate');
    const [copy] = sessionStore.getState().selection;
    runCommand('edit.switch');
    expect([isOn(noise), isOn(copy)]).toEqual([true, false]);
    choose([noise, copy]);
    runCommand('edit.switch');
    expect([isOn(noise), isOn(copy)]).toEqual([false, false]);
    runCommand('edit.switch');
    expect([isOn(noise), isOn(copy)]).toEqual([true, true]);
  });

  test('makes, copies, opens and deletes scenes, and keeps the last one', () => {
    const scenes = (): string[] => showStore.getState().show.scenes.map(({ name }) => name);
    const open = (): string =>
      showStore.getState().show.scenes.find(({ id }) => id === sessionStore.getState().sceneId)!.name;
    const [first] = scenes();
    runCommand('scene.delete');
    expect(scenes()).toEqual([first]);
    runCommand('scene.new');
    expect(scenes()).toHaveLength(2);
    expect(open()).toBe(scenes()[1]);
    runCommand('scene.after');
    expect(open()).toBe(first);
    runCommand('scene.before');
    expect(open()).toBe(scenes()[1]);
    runCommand('scene.duplicate');
    expect(scenes()).toHaveLength(3);
    expect(new Set(scenes()).size).toBe(3);
    runCommand('scene.delete');
    runCommand('scene.delete');
    expect(scenes()).toHaveLength(1);
  });

  test('asks the patch that is shown, and nothing where none is', () => {
    const asked: string[] = [];
    expect(applies(commandOf('patch.add'))).toBe(false);
    runCommand('patch.add');
    const end = offerPatch({
      add: () => asked.push('add'),
      tidy: () => asked.push('tidy'),
      fit: () => asked.push('fit'),
      find: () => asked.push('find'),
      wire: () => asked.push('wire'),
      middle: () => [0, 0],
    });
    for (const id of ['patch.add', 'patch.find', 'patch.tidy', 'patch.fit'] as const) runCommand(id);
    expect(asked).toEqual(['add', 'find', 'tidy', 'fit']);
    end();
    expect(patchActions.current).toBeNull();
  });

  test('says which switches are on', () => {
    const isOn = (id: Parameters<typeof commandOf>[0]): boolean => commandOf(id).isOn!();
    for (const id of ['view.bench', 'view.cross', 'view.safe', 'view.handles', 'view.theme'] as const) {
      const before = isOn(id);
      runCommand(id);
      expect(isOn(id)).toBe(!before);
      runCommand(id);
      expect(isOn(id)).toBe(before);
    }
    liveStore.setState({ blackout: true, freeze: false });
    expect(isOn('stage.blackout')).toBe(true);
    expect(isOn('stage.freeze')).toBe(false);
  });
});
