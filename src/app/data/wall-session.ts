import { create } from 'zustand';
import { testPictures, type TestPicture } from '../../engine/protocol/protocol';

interface WallSession {
  /** Outputs that are chosen, by id. */
  chosen: readonly string[];
  /** Canvas: which part each takes; output: how the chosen one is bent and masked; room: where all hang. */
  tab: 'canvas' | 'output' | 'room';
  /** Which handles lie on a screen. */
  handles: 'warp' | 'masks';
  /** What is seen of an LED wall: its tiles as they hang, or as they lie in the raster. */
  ledPlan: 'tiles' | 'raster';
  /** The chosen tile of the chosen LED wall. */
  tile: number | null;
  /** The test picture that comes next. */
  picture: TestPicture;
  /** Screens that show a test picture. */
  tests: Readonly<Record<string, TestPicture>>;
}

/** How the Wall view is set; no part of the show, and not undone. */
export const wallSession = create<WallSession>()(() => ({
  chosen: [],
  tab: 'canvas',
  handles: 'warp',
  ledPlan: 'tiles',
  tile: null,
  picture: testPictures[0],
  tests: {},
}));

export const chooseOutputs = (chosen: readonly string[]): void =>
  wallSession.setState({ chosen, tile: null });
