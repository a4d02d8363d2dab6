import { describe, expect, test } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import { catalogue } from '../../nodes/catalogue';
import type { PixelString, ScreenOutput } from '../document/types';
import { makeShow } from '../show/create';
import { hangFromMvr } from '../show/edit-wall';
import { readShow, writeShow } from '../show/validate';
import { MvrError, readMvr } from './mvr';

const gdtf = zipSync({
  'description.xml': strToU8(`<GDTF DataVersion="1.2"><FixtureType Name="Bar">
    <Geometries><Geometry Name="Pixel"/><Geometry Name="Body">
      ${[0, 1, 2, 3].map((k) => `<GeometryReference Geometry="Pixel" Name="P${k}" Position="{1,0,0,${k * 0.25}}{0,1,0,0}{0,0,1,0}{0,0,0,1}"><Break DMXBreak="1" DMXOffset="${1 + 3 * k}"/></GeometryReference>`).join('')}
    </Geometry></Geometries>
    <DMXModes><DMXMode Name="Pixels" Geometry="Body"><DMXChannels>
      <DMXChannel Geometry="Pixel" Offset="2"><LogicalChannel Attribute="ColorAdd_R"/></DMXChannel>
      <DMXChannel Geometry="Pixel" Offset="1"><LogicalChannel Attribute="ColorAdd_G"/></DMXChannel>
      <DMXChannel Geometry="Pixel" Offset="3"><LogicalChannel Attribute="ColorAdd_B"/></DMXChannel>
    </DMXChannels></DMXMode></DMXModes></FixtureType></GDTF>`),
});

const mvr = (inside: string, files: Record<string, Uint8Array> = { 'Bar.gdtf': gdtf }): Uint8Array =>
  zipSync({
    'GeneralSceneDescription.xml': strToU8(
      `<?xml version="1.0"?><GeneralSceneDescription verMajor="1" verMinor="6"><Scene><Layers><Layer name="Stage"><ChildList>${inside}</ChildList></Layer></Layers></Scene></GeneralSceneDescription>`,
    ),
    ...files,
  });
const upright = '{1,0,0}{0,1,0}{0,0,1}';
const bar = `<Fixture name="Bar 1"><Matrix>{0,1,0}{-1,0,0}{0,0,1}{500,-2000,3000}</Matrix><GDTFSpec>Bar.gdtf</GDTFSpec><GDTFMode>Pixels</GDTFMode><Addresses><Address break="0">515</Address></Addresses></Fixture>`;

describe('a rig from another program', () => {
  test('hangs where it hung: millimetres, z up, groups within groups', () => {
    const { screens } = readMvr(
      mvr(
        `<GroupObject name="Truss"><Matrix>${upright}{1000,0,4000}</Matrix><ChildList><VideoScreen name="Left screen"><Matrix>{2,0,0}{0,1,0}{0,0,1}{500,-250,0}</Matrix></VideoScreen></ChildList></GroupObject>`,
      ),
    );
    expect(screens).toHaveLength(1);
    expect(screens[0]).toMatchObject({ name: 'Left screen', at: [1.5, 4, 0.25], width: 2 });
    screens[0].turn.forEach((angle) => expect(angle).toBeCloseTo(0));
  });

  test('pixels of a fixture are counted from its GDTF, with the order and address of its channels', () => {
    const { strings } = readMvr(mvr(bar));
    expect(strings).toHaveLength(1);
    expect(strings[0]).toMatchObject({
      name: 'Bar 1',
      pixels: 4,
      order: 'GRB',
      universe: 2,
      channel: 3,
      width: 0.75,
    });
    expect(strings[0].at).toEqual([0.5, 3, 2]);
    // Its x runs away from the audience.
    expect(strings[0].turn[1]).toBeCloseTo(90);
  });

  test('comes into a show that is read back, with names of their own, sent nowhere', () => {
    const show = makeShow(catalogue, 'Rig');
    const ids = hangFromMvr(
      show,
      readMvr(mvr(`${bar}${bar}<VideoScreen><Matrix>${upright}{0,0,2000}</Matrix></VideoScreen>`)),
    );
    expect(ids).toHaveLength(3);
    const [screen, first, second] = show.wall.outputs as [ScreenOutput, PixelString, PixelString];
    expect(screen.room).toEqual({ at: [0, 2, 0], turn: [0, 0, 0], width: 1 });
    expect([first.name, second.name]).toEqual(['Bar 1', 'Bar 2']);
    expect(first).toMatchObject({
      pixels: 4,
      order: 'GRB',
      send: { simulated: true, universe: 2, channel: 3 },
    });
    expect(readShow(writeShow(show), catalogue).show).toEqual(show);
    for (const { part } of [screen]) expect(part.x).toBeGreaterThanOrEqual(0);
  });

  test('what can not be read of it is said, and the rest comes', () => {
    const { strings, screens, notes } = readMvr(
      mvr(`${bar}<Fixture name="Lost"><GDTFSpec>Other.gdtf</GDTFSpec></Fixture><VideoScreen name="A"/>`, {
        'Bar.gdtf': Uint8Array.of(1, 2, 3),
      }),
    );
    expect(strings).toEqual([]);
    expect(screens).toHaveLength(1);
    expect(notes.join(' ')).toMatch(/Bar.gdtf is damaged.*widths.*2 fixtures without pixels/);
  });

  test.each([
    ['bytes that are no zip', Uint8Array.of(5, 6, 7)],
    ['a zip of something else', zipSync({ 'a.txt': strToU8('hello') })],
    ['a torn zip', mvr(bar).subarray(0, 200)],
    ['a scene that is no XML', zipSync({ 'GeneralSceneDescription.xml': strToU8('<a><b></a>') })],
  ])('%s is refused with a sentence', (_name, bytes) => {
    let said = '';
    try {
      const { screens, strings } = readMvr(bytes);
      said = screens.length + strings.length === 0 ? 'nothing in it' : '';
    } catch (error) {
      expect(error).toBeInstanceOf(MvrError);
      said = (error as Error).message;
    }
    expect(said).not.toBe('');
  });
});
