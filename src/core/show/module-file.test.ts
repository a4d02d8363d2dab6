import { beforeEach, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { shippedModules } from '../../nodes/modules/shipped';
import type { Scene, Show } from '../document/types';
import { makeShow, structuredCloneOf } from './create';
import { addNode, connect, setControl } from './edit';
import { bringOut } from './edit-module';
import { makeModule } from './make-module';
import { isModuleFile, readModule, writeModule } from './module-file';
import {
  conflictsWith,
  isSameModule,
  moduleChanges,
  packModule,
  takeModules,
  unusedModules,
} from './module-pack';
import { checkShow, ShowFileError } from './validate';

let show: Show;
let scene: Scene;
let made: string;
beforeEach(() => {
  show = makeShow(catalogue, 'From');
  [scene] = show.scenes;
  const [picture, blur] = [
    addNode(scene, catalogue, 'picture', [0, 0]),
    addNode(scene, catalogue, 'blur', [200, 0]),
  ];
  show.files.fabc = { name: 'wax.png', type: 'image/png', bytes: 3 };
  setControl(scene, picture, 'file', 'fabc');
  connect(scene, catalogue, picture, blur, 'picture');
  connect(scene, catalogue, blur, 'n1', 'picture');
  const inner = makeModule(show, catalogue, scene, [picture, blur], 'Soft Wax');
  made = makeModule(show, catalogue, scene, [inner], 'Around');
});

test('a pack has the modules inside, and the files that they name', () => {
  const pack = packModule(show, catalogue, 'around');
  expect(Object.keys(pack.modules)).toEqual(['around', 'soft-wax']);
  expect(Object.keys(pack.files)).toEqual(['fabc']);
  const text = writeModule(pack, { fabc: 'AAEC' });
  expect(isModuleFile(text)).toBe(true);
  expect(readModule(text, catalogue)).toEqual({ pack, bytes: { fabc: 'AAEC' } });
});

test('a damaged module file is refused with a sentence, and one that lies in itself too', () => {
  expect(() => readModule('{', catalogue)).toThrow(ShowFileError);
  expect(() => readModule('{"format":"pyrvel.show"}', catalogue)).toThrow('.pyrvel-module.json');
  const pack = packModule(show, catalogue, 'around');
  expect(() => readModule(writeModule({ ...pack, main: 'gone' }), catalogue)).toThrow('which module');
  pack.modules['soft-wax'].nodes.n9 = { ...scene.nodes[made], id: 'n9', name: 'Again' };
  expect(() => readModule(writeModule(pack), catalogue)).toThrow('lies in itself');
});

test('another show takes it over, once; another state comes beside it or replaces it, as is asked', () => {
  const pack = packModule(show, catalogue, 'around');
  const other = makeShow(catalogue, 'To');
  expect(takeModules(other, pack)).toBe('around');
  expect(takeModules(other, pack)).toBe('around');
  expect(Object.keys(other.modules)).toEqual(['around', 'soft-wax']);
  expect(Object.keys(other.files)).toEqual(['fabc']);
  expect(unusedModules(other)).toEqual(['around', 'soft-wax']);
  const newer = structuredCloneOf(pack);
  const [blur] = Object.values(newer.modules['soft-wax'].nodes).filter(({ kind }) => kind === 'blur');
  blur.controls.radius = 0.4;
  expect(conflictsWith(other, newer).map(({ after }) => after.id)).toEqual(['soft-wax']);
  const beside = takeModules(other, newer, 'beside');
  expect(beside).toBe('around');
  expect(Object.keys(other.modules)).toEqual(['around', 'soft-wax', 'soft-wax-2']);
  expect(checkShow(other, catalogue).filter(({ level }) => level === 'error')).toEqual([]);
  takeModules(other, newer, 'replace');
  expect(isSameModule(other.modules['soft-wax'], newer.modules['soft-wax'])).toBe(true);
});

test('what a newer version changes is said in sentences', () => {
  const before = structuredCloneOf(show.modules['soft-wax']);
  const after = show.modules['soft-wax'];
  expect(moduleChanges(before, after, catalogue)).toEqual([]);
  const [blur] = Object.values(after.nodes).filter(({ kind }) => kind === 'blur');
  bringOut(after, catalogue, blur.id, 'radius');
  blur.controls.radius = 0.4;
  expect(moduleChanges(before, after, catalogue)).toEqual([
    'New controls: Radius.',
    '1 of its nodes differs.',
  ]);
  expect(moduleChanges(after, before, catalogue)[0]).toContain('No more controls: Radius.');
});

test('every module that ships stands for itself: no findings, help everywhere, something that comes out', () => {
  const library = makeShow(catalogue, 'Library');
  for (const pack of shippedModules) takeModules(library, structuredCloneOf(pack));
  expect(shippedModules.length).toBeGreaterThanOrEqual(24);
  expect(checkShow(library, catalogue).filter(({ where }) => where.startsWith('modules'))).toEqual([]);
  for (const module of Object.values(library.modules)) {
    expect([module.id, module.help.endsWith('.'), module.words.length > 3]).toEqual([module.id, true, true]);
    expect(module.controls.every(({ help }) => help.endsWith('.'))).toBe(true);
    expect(Object.values(module.nodes).filter(({ kind }) => kind === 'way-out')).toHaveLength(1);
  }
});
