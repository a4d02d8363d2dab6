import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { makeScene, makeShow } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import { idleInputs } from '../../core/inputs/inputs';
import type { Frame } from '../../core/run/frame';
import type { Scene, Show } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import type { MediaLibrary } from '../media/library';
import type { OutputSource } from '../protocol/protocol';

/** A player that notes what it is asked for, in place of one that draws. */
class FakePlayer {
  static made: FakePlayer[] = [];
  played: { scene: Scene; nodes: readonly string[]; width: number }[] = [];
  isDisposed = false;
  adopted: unknown = null;
  gpu: unknown;
  restarts = 0;
  run = { restart: () => this.restarts++, useDrafts: () => undefined };
  renderer = { isComplete: false, adoptFeedback: (from: unknown) => (this.adopted = from) };

  constructor(
    gpu: unknown,
    _catalogue: unknown,
    _media: unknown,
    readonly scene: Scene,
    readonly options: object = {},
    readonly without: string | null = null,
  ) {
    this.gpu = gpu;
    FakePlayer.made.push(this);
  }
  give(): void {
    // What the desk gives is no matter here.
  }
  play(scene: Scene, frame: Frame, nodes: readonly string[]): void {
    this.played.push({ scene, nodes, width: frame.canvas.width });
  }
  moveTo(gpu: unknown): void {
    this.gpu = gpu;
  }
  dispose(): void {
    this.isDisposed = true;
  }
}

jest.unstable_mockModule('./scene-player', () => ({ ScenePlayer: FakePlayer }));
const { ScenePlayers } = await import('./scene-players');
const exampleWidth = 320;

const gpu = { name: 'gpu' } as unknown as Gpu;
const frame: Frame = {
  moment: momentAt(0, 0, 60, { bpm: 120, beatsPerBar: 4 }),
  live: idleInputs(),
  canvas: { width: 640, height: 360 },
  feedback: oneStep,
};

describe('the scenes at work', () => {
  let players: InstanceType<typeof ScenePlayers>;
  let show: Show;
  let noise: string;
  const ignore = (): void => undefined;
  const play = (
    scenes: Record<string, string[]>,
    sources: OutputSource[] = [],
    rest: { ready: string[]; isEasy: boolean; isDeskAlone?: boolean; first?: ReadonlySet<string> } = {
      ready: [],
      isEasy: false,
    },
  ): void =>
    players.play(gpu, show, frame, { scenes: new Map(Object.entries(scenes)), sources, ...rest }, ignore);

  test('that come first are played alone; the others stay', () => {
    play({ a: [], b: [] }, [], { ready: ['c'], isEasy: true });
    const [a, b, c] = FakePlayer.made;
    expect(FakePlayer.made.map(({ played }) => played.length)).toEqual([1, 1, 1]);
    play({ a: [], b: [] }, [{ type: 'tile', scene: 'c' }], {
      ready: ['c'],
      isEasy: true,
      first: new Set(['b']),
    });
    expect([a, b, c].map(({ played }) => played.length)).toEqual([1, 2, 1]);
    expect([a, b, c].some(({ isDisposed }) => isDisposed)).toBe(false);
  });

  beforeEach(() => {
    FakePlayer.made = [];
    show = {
      ...makeShow(catalogue, 'Night'),
      scenes: ['a', 'b', 'c'].map((id) => makeScene(catalogue, id, id)),
    };
    noise = addNode(show.scenes[0], catalogue, 'noise', [0, 0]);
    players = new ScenePlayers(catalogue, {} as MediaLibrary, { given: () => ({ version: 0, values: [] }) });
  });

  test('are those that are wanted, each made once, with the nodes that are looked at', () => {
    play({ a: [noise], b: [] });
    play({ a: [noise], b: [] });
    expect(FakePlayer.made).toHaveLength(2);
    expect(FakePlayer.made[0].played.map(({ nodes }) => nodes)).toEqual([[noise], [noise]]);
    expect([...players.playing.keys()]).toEqual(['a', 'b']);
  });

  test('stop when nobody wants them any more', () => {
    play({ a: [], b: [] });
    play({ b: [] });
    expect(FakePlayer.made.map(({ isDisposed }) => isDisposed)).toEqual([true, false]);
    expect(players.of({ type: 'scene', scene: 'a', without: null })).toBeUndefined();
  });

  test('that may go on air stay, and are played one by one until they were seen whole', () => {
    const rest = { ready: ['b', 'c'], isEasy: false };
    play({ a: [] }, [], rest);
    play({ a: [] }, [], rest);
    expect([...players.playing.keys()]).toEqual(['a', 'b']);
    FakePlayer.made[1].renderer.isComplete = true;
    play({ a: [] }, [], rest);
    expect([...players.playing.keys()]).toEqual(['a', 'b', 'c']);
    expect(FakePlayer.made.map(({ played }) => played.length)).toEqual([3, 2, 1]);
    expect(players.isComplete('b')).toBe(true);
  });

  test('have tiles that take turns while there is time, and one that is on air is its own', () => {
    const tiles = ['a', 'b', 'c'].map((scene) => ({ type: 'tile' as const, scene }));
    play({ a: [] }, tiles);
    expect(FakePlayer.made).toHaveLength(1);
    for (let k = 0; k < 4; k++) play({ a: [] }, tiles, { ready: [], isEasy: true });
    expect(FakePlayer.made.map(({ played }) => played.length)).toEqual([5, 2, 2]);
    expect(players.of(tiles[0])).toBe(players.playing.get('a'));
    expect(players.of(tiles[1])).not.toBe(players.playing.get('b'));
  });

  test('have examples that take turns, even in a hurry while only the desk looks on; others always play', () => {
    const example = (id: string) => ({ type: 'example' as const, scene: makeScene(catalogue, id, id) });
    const turns = ['x', 'y', 'z'].map((id) => ({ ...example(id), inTurn: true as const }));
    const alone = example('alone');
    play({ a: [] }, [...turns, alone]);
    const played = (): number[] =>
      [...turns, alone].map(
        (source) => (players.of(source) as unknown as FakePlayer | undefined)?.played.length ?? 0,
      );
    expect(played()).toEqual([0, 0, 0, 1]);
    for (let k = 0; k < 4; k++)
      play({ a: [] }, [...turns, alone], { ready: [], isEasy: false, isDeskAlone: true });
    expect(played()).toEqual([2, 1, 1, 5]);
    play({ a: [] }, [...turns, alone], { ready: [], isEasy: false });
    expect(played()).toEqual([2, 1, 1, 6]);
  });

  test('that are not in the show are left out', () => {
    play({ gone: [] });
    expect(FakePlayer.made).toEqual([]);
  });

  test('are brought for a preroll before anybody has seen them, and stay', () => {
    players.bring(gpu, show, ['a', 'gone', 'a']);
    expect([...players.playing.keys()]).toEqual(['a']);
    play({ a: [noise] });
    expect(FakePlayer.made).toHaveLength(1);
  });

  test('are prepared before they are played', () => {
    const order: string[] = [];
    players.play(
      gpu,
      show,
      frame,
      { scenes: new Map([['a', []]]), sources: [], ready: [], isEasy: false },
      (player, scene) => order.push(`${scene} ${(player as unknown as FakePlayer).played.length}`),
    );
    expect(order).toEqual(['a 0']);
  });

  test('run once for any number of outputs of one source', () => {
    const source = { type: 'scene', scene: 'a', without: null } as const;
    play({ a: [] }, [source, { ...source }, { type: 'node', scene: 'a', node: noise }]);
    expect(FakePlayer.made).toHaveLength(1);
    expect(players.of(source)).toBe(players.of({ type: 'node', scene: 'a', node: noise }));
  });

  test('run beside themselves without a node while that is looked at, and take the feedback over', () => {
    const without = { type: 'scene', scene: 'a', without: noise } as const;
    play({ a: [] }, [without]);
    play({ a: [] }, [without]);
    const [whole, less] = FakePlayer.made;
    expect(less.without).toBe(noise);
    expect(less.adopted).toBe(whole.renderer);
    // Once before the feedback is taken over, then in each frame.
    expect(less.played).toHaveLength(3);
    expect(players.of(without)).toBe(less);
    play({ a: [] }, [{ ...without, without: null }]);
    expect(less.isDisposed).toBe(true);
    expect(whole.isDisposed).toBe(false);
  });

  test('without a node that is not there are the scene itself', () => {
    const without = { type: 'scene', scene: 'a', without: 'gone' } as const;
    play({ a: [] }, [without]);
    expect(FakePlayer.made).toHaveLength(1);
    expect(players.of(without)).toBe(FakePlayer.made[0]);
  });

  test('include examples, small, while they are looked at', () => {
    const [one, two] = ['x', 'y'].map((id) => makeScene(catalogue, id, id));
    play({}, [
      { type: 'example', scene: one },
      { type: 'example', scene: two },
    ]);
    expect(FakePlayer.made.map(({ played }) => played[0].width)).toEqual([exampleWidth, exampleWidth]);
    expect(players.of({ type: 'example', scene: two })).toBe(FakePlayer.made[1]);
    play({}, [{ type: 'example', scene: two }]);
    expect(FakePlayer.made.map(({ isDisposed }) => isDisposed)).toEqual([true, false]);
  });

  test('that an output shows through the program or next have no player of their own', () => {
    expect(players.of({ type: 'program' })).toBeUndefined();
    expect(players.of({ type: 'next' })).toBeUndefined();
  });

  test('go on with another graphics context, what stood beside them does not', () => {
    const without = { type: 'scene', scene: 'a', without: noise } as const;
    play({ a: [] }, [without, { type: 'example', scene: makeScene(catalogue, 'x', 'x') }]);
    const other = { name: 'other' } as unknown as Gpu;
    players.moveTo(other);
    expect(FakePlayer.made[0].gpu).toBe(other);
    expect(players.of(without)).toBe(FakePlayer.made[0]);
    play({ a: [] }, [without]);
    expect(FakePlayer.made).toHaveLength(4);
  });

  test('restart, leave with their scenes, and end all together', () => {
    play({ a: [], b: [] });
    players.restart();
    expect(FakePlayer.made.map(({ restarts }) => restarts)).toEqual([1, 1]);
    players.keepTo(new Set(['b']));
    expect([...players.playing.keys()]).toEqual(['b']);
    players.clear();
    expect(FakePlayer.made.every(({ isDisposed }) => isDisposed)).toBe(true);
    expect(players.playing.size).toBe(0);
  });
});
