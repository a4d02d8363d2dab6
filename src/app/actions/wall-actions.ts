import { aligned, distributed, type Side } from '../../core/wall/parts';
import { addLedWall, addPixelString, addScreen } from '../../core/show/edit-wall';
import { moveOutput, partOf } from '../../core/wall/outputs';
import type { LedWall, Output, PixelString, ScreenOutput, Show, Wall } from '../../core/document/types';
import { editShow, showStore } from '../data/show-store';
import { chooseOutputs, wallSession } from '../data/wall-session';
import type { TestPicture } from '../../engine/protocol/protocol';
import { engine } from '../engine/client';

const chosenOf = (show: Show): Output[] => {
  const { chosen } = wallSession.getState();
  return show.wall.outputs.filter(({ id }) => chosen.includes(id));
};

/** Moves outputs along an axis; hundredths of a pixel are enough. */
function moveAll(outputs: readonly Output[], axis: 'x' | 'y', moves: readonly number[]): void {
  outputs.forEach((output, k) =>
    moveOutput(output, axis, Math.round((partOf(output)[axis] + moves[k]) * 100) / 100),
  );
}

function addToWall(add: (show: Show) => string): void {
  const id = editShow((show) => add(show));
  if (id !== null) chooseOutputs([id]);
}

export const addScreenToWall = (): void => addToWall(addScreen);
export const addStringToWall = (): void => addToWall(addPixelString);
export const addLedToWall = (): void => addToWall(addLedWall);

export function removeChosenOutputs(): void {
  const { chosen } = wallSession.getState();
  editShow((show) => {
    show.wall.outputs = show.wall.outputs.filter(({ id }) => !chosen.includes(id));
  });
  chooseOutputs([]);
}

export function alignChosen(side: Side): void {
  editShow((show) => {
    const outputs = chosenOf(show);
    const { axis, moves } = aligned(outputs.map(partOf), side);
    moveAll(outputs, axis, moves);
  });
}

export function distributeChosen(axis: 'x' | 'y'): void {
  editShow((show) => {
    const outputs = chosenOf(show);
    moveAll(outputs, axis, distributed(outputs.map(partOf), axis));
  });
}

/** Changes what is no single output: the venue, the seat. */
export const editWall = (change: (wall: Wall) => void, gesture: string | null = null): void =>
  void editShow((show) => change(show.wall), gesture && `wall ${gesture}`);

/** Changes one output of the wall. Edits with the same `gesture` that follow each other are undone together. */
export function editOutput(
  id: string,
  change: (output: Output) => void,
  gesture: string | null = null,
): void {
  editShow(
    (show) => {
      const output = show.wall.outputs.find((one) => one.id === id);
      if (output) change(output);
    },
    gesture && `${id} ${gesture}`,
  );
}

/** The same for a screen. */
export const editScreen = (
  id: string,
  change: (screen: ScreenOutput) => void,
  gesture: string | null = null,
): void => editOutput(id, (output) => output.type === 'screen' && change(output), gesture);

/** The same for an LED wall. */
export const editLed = (id: string, change: (led: LedWall) => void, gesture: string | null = null): void =>
  editOutput(id, (output) => output.type === 'led' && change(output), gesture);

/** The same for a string of pixels. */
export const editString = (
  id: string,
  change: (string: PixelString) => void,
  gesture: string | null = null,
): void => editOutput(id, (output) => output.type === 'string' && change(output), gesture);

function showTests(tests: Readonly<Record<string, TestPicture>>): void {
  wallSession.setState({ tests });
  engine().set({ type: 'test-pictures', shown: tests });
}

/** Shows the test picture on the screens of those ids, or takes it away where all of them show it. */
export function toggleTests(ids: readonly string[]): void {
  const { tests, picture } = wallSession.getState();
  const shown = ids.length > 0 && ids.every((id) => tests[id] === picture);
  const rest = Object.fromEntries(Object.entries(tests).filter(([id]) => !ids.includes(id)));
  showTests(shown ? rest : { ...rest, ...Object.fromEntries(ids.map((id) => [id, picture])) });
}

/** Chooses the test picture; screens that show one change to it. */
export function choosePicture(picture: TestPicture): void {
  const { tests } = wallSession.getState();
  wallSession.setState({ picture });
  showTests(Object.fromEntries(Object.keys(tests).map((id) => [id, picture])));
}

export const allOutputs = (): string[] => showStore.getState().show.wall.outputs.map(({ id }) => id);
