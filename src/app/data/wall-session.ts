import { create } from 'zustand';
import { testPictures, type TestPicture } from '../../engine/protocol/protocol';

interface WallSession {
  /** Outputs that are chosen, by id. */
  chosen: readonly string[];
  /** Canvas: which part each takes; output: how the chosen one is bent and masked. */
  tab: 'canvas' | 'output';
  /** Which handles lie on the output. */
  handles: 'warp' | 'masks';
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
  picture: testPictures[0],
  tests: {},
}));

export const chooseOutputs = (chosen: readonly string[]): void => wallSession.setState({ chosen });
