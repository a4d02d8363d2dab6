import type { Given } from '../../core/desk/desk-run';
import type { Catalogue } from '../../core/kind/kind';
import type { Frame } from '../../core/run/frame';
import type { Scene, Show } from '../../core/document/types';
import type { Gpu } from '../gpu/gpu';
import type { MediaLibrary } from '../media/library';
import type { OutputSource } from '../protocol/protocol';
import { ScenePlayer } from './scene-player';

/** Pixels of an example, and of a tile. */
const exampleSize = { width: 320, height: 180 };

const withoutKey = (scene: string, node: string): string => `${scene} ${node}`;

/** What is to be played in a frame. */
export interface Wanted {
  /** Scenes somebody looks at, with the nodes whose output is wanted beside the picture. */
  scenes: ReadonlyMap<string, readonly string[]>;
  sources: readonly OutputSource[];
  /** Scenes that may go on air at any moment: they stay, and one that was never seen whole is played until it was. */
  ready: readonly string[];
  /** There is time for what is only nice to have. */
  isEasy: boolean;
  /** Nobody but the desk is looking: examples that take turns have one though there is little time. */
  isDeskAlone?: boolean;
  /** Nothing but these scenes is played, whatever else is wanted; null or absent: all of it is. */
  first?: ReadonlySet<string> | null;
  /** Values for work count; absent: no. */
  isDraft?: boolean;
}

/** What a desk gives to the nodes of each scene. */
interface Desk {
  given(scene: string): { version: number; values: Iterable<Given> };
}

/** All scenes that are playing: those of the show, those shown without a node of theirs, small ones, and examples. */
export class ScenePlayers {
  /** Scenes of the show, by id. */
  readonly playing = new Map<string, ScenePlayer>();
  private readonly without = new Map<string, ScenePlayer>();
  private readonly examples = new Map<Scene, ScenePlayer>();
  private readonly tiles = new Map<string, ScenePlayer>();
  /** Counts the turns of tiles, and those of examples. */
  private turn = 0;
  private exampleTurn = 0;

  constructor(
    private readonly catalogue: Catalogue,
    private readonly media: MediaLibrary,
    private readonly desk: Desk,
  ) {}

  /** Plays a frame of all that is wanted, and stops the rest. `prepare` is called before a scene of the show is played. */
  play(
    gpu: Gpu,
    show: Show,
    frame: Frame,
    { scenes, sources, ready, isEasy, isDeskAlone, first = null, isDraft = false }: Wanted,
    prepare: (player: ScenePlayer, scene: string) => void,
  ): void {
    this.bring(gpu, show, scenes.keys());
    for (const players of [this.playing, this.tiles, this.without])
      for (const { run } of players.values()) run.useDrafts(isDraft);
    // One at a time: what is being made ready must not cost the stage its frames.
    const late = first ? undefined : ready.find((id) => !scenes.has(id) && !this.isComplete(id));
    if (late !== undefined) this.bring(gpu, show, [late]);
    drop(this.playing, (id) => scenes.has(id) || ready.includes(id));
    for (const [id, player] of this.playing) {
      const scene = show.scenes.find((other) => other.id === id)!;
      const watched = scenes.get(id);
      if ((!watched && id !== late) || (first && !first.has(id))) continue;
      prepare(player, id);
      player.play(scene, frame, watched ?? [], show.canvas.height);
    }
    if (first) return;
    this.playWithout(gpu, show, frame, sources);
    this.playExamples(gpu, frame, sources, isEasy || isDeskAlone === true);
    this.playTiles(gpu, show, frame, sources, isEasy);
  }

  /** Whether a scene of the show is playing and can be seen whole. */
  isComplete(id: string): boolean {
    return this.playing.get(id)?.renderer.isComplete === true;
  }

  /** Tiles take turns, one a frame while there is time. A scene that plays anyway is seen as it is. */
  private playTiles(
    gpu: Gpu,
    show: Show,
    frame: Frame,
    sources: readonly OutputSource[],
    isEasy: boolean,
  ): void {
    const wanted = sources.flatMap((source) =>
      source.type === 'tile' && !this.playing.has(source.scene) ? [source.scene] : [],
    );
    drop(this.tiles, (id) => wanted.includes(id));
    if (!isEasy || wanted.length === 0) return;
    const id = wanted[this.turn++ % wanted.length];
    const scene = show.scenes.find((other) => other.id === id);
    if (!scene) return;
    let player = this.tiles.get(id);
    if (!player) this.tiles.set(id, (player = new ScenePlayer(gpu, this.catalogue, this.media, scene)));
    player.give(this.desk.given(id));
    player.play(scene, { ...frame, canvas: exampleSize }, [], exampleSize.height);
  }

  /** Makes players of scenes that have none, so that a preroll reaches those as well that nobody has seen yet. */
  bring(gpu: Gpu, show: Show, scenes: Iterable<string>): void {
    for (const id of scenes) {
      const scene = show.scenes.find((other) => other.id === id);
      if (!scene) continue;
      let player = this.playing.get(id);
      if (!player) this.playing.set(id, (player = new ScenePlayer(gpu, this.catalogue, this.media, scene)));
      player.give(this.desk.given(id));
    }
  }

  /** A scene as it would be without one node runs beside the real one, only while somebody looks at it. */
  private playWithout(gpu: Gpu, show: Show, frame: Frame, sources: readonly OutputSource[]): void {
    const wanted = new Map<string, { scene: Scene; node: string }>();
    for (const source of sources) {
      if (source.type !== 'scene' || !source.without) continue;
      const scene = show.scenes.find(({ id }) => id === source.scene);
      if (scene?.nodes[source.without])
        wanted.set(withoutKey(scene.id, source.without), { scene, node: source.without });
    }
    drop(this.without, (key) => wanted.has(key));
    for (const [key, { scene, node }] of wanted) {
      let player = this.without.get(key);
      if (!player) {
        player = new ScenePlayer(gpu, this.catalogue, this.media, scene, { waits: true }, node);
        this.without.set(key, player);
        player.give(this.desk.given(scene.id));
        const whole = this.playing.get(scene.id);
        if (whole) {
          player.play(scene, frame, [], show.canvas.height);
          player.renderer.adoptFeedback(whole.renderer);
        }
      }
      player.give(this.desk.given(scene.id));
      player.play(scene, frame, [], show.canvas.height);
    }
  }

  /** An example is small and stands beside the show: nothing of the show depends on it. */
  private playExamples(gpu: Gpu, frame: Frame, sources: readonly OutputSource[], hasTime: boolean): void {
    const examples = sources.filter((source) => source.type === 'example');
    const wanted = new Set(examples.map(({ scene }) => scene));
    drop(this.examples, (scene) => wanted.has(scene));
    const inTurn = examples.filter((source) => source.inTurn);
    const turn = inTurn.length && hasTime ? inTurn[this.exampleTurn++ % inTurn.length].scene : null;
    for (const { scene, inTurn: waits } of examples) {
      if (waits && scene !== turn) continue;
      let player = this.examples.get(scene);
      if (!player)
        this.examples.set(scene, (player = new ScenePlayer(gpu, this.catalogue, this.media, scene)));
      player.play(scene, { ...frame, canvas: exampleSize }, [], exampleSize.height);
    }
  }

  /** Who plays what a source shows; undefined if it is not playing, or is no single scene. */
  of(source: OutputSource): ScenePlayer | undefined {
    switch (source.type) {
      case 'scene':
        return (
          (source.without ? this.without.get(withoutKey(source.scene, source.without)) : undefined) ??
          this.playing.get(source.scene)
        );
      case 'tile':
        return this.playing.get(source.scene) ?? this.tiles.get(source.scene);
      case 'node':
        return this.playing.get(source.scene);
      case 'example':
        return this.examples.get(source.scene);
      case 'program':
      case 'screen':
      case 'room':
      case 'next':
        return undefined;
    }
  }

  /** Memories start again, as after a jump. */
  restart(): void {
    for (const player of this.playing.values()) player.run.restart();
  }

  /** Goes on with another graphics context. */
  moveTo(gpu: Gpu): void {
    for (const player of this.playing.values()) player.moveTo(gpu);
    this.without.clear();
    this.examples.clear();
    this.tiles.clear();
  }

  keepTo(scenes: ReadonlySet<string>): void {
    drop(this.playing, (id) => scenes.has(id));
    drop(this.tiles, (id) => scenes.has(id));
  }

  clear(): void {
    for (const players of [this.playing, this.without, this.examples, this.tiles])
      drop(players as Map<unknown, ScenePlayer>, () => false);
  }
}

function drop<K>(players: Map<K, ScenePlayer>, keeps: (key: K) => boolean): void {
  for (const [key, player] of players) {
    if (keeps(key)) continue;
    player.dispose();
    players.delete(key);
  }
}
