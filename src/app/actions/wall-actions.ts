import { aligned, distributed, type Side } from '../../core/wall/parts';
import { addScreen } from '../../core/show/edit-wall';
import type { ScreenOutput, Show } from '../../core/document/types';
import { editShow, showStore } from '../data/show-store';
import { chooseOutputs, wallSession } from '../data/wall-session';
import type { TestPicture } from '../../engine/protocol/protocol';
import { engine } from '../engine/client';

const chosenOf = (show: Show): ScreenOutput[] => {
  const { chosen } = wallSession.getState();
  return show.wall.outputs.filter(({ id }) => chosen.includes(id));
};

/** Pixels are whole unless somebody types otherwise. */
const moved = (value: number, by: number): number => Math.round((value + by) * 100) / 100;

export function addScreenToWall(): void {
  const id = editShow((show) => addScreen(show));
  if (id !== null) chooseOutputs([id]);
}

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
    const { axis, moves } = aligned(
      outputs.map(({ part }) => part),
      side,
    );
    outputs.forEach(({ part }, k) => (part[axis] = moved(part[axis], moves[k])));
  });
}

export function distributeChosen(axis: 'x' | 'y'): void {
  editShow((show) => {
    const outputs = chosenOf(show);
    const moves = distributed(
      outputs.map(({ part }) => part),
      axis,
    );
    outputs.forEach(({ part }, k) => (part[axis] = moved(part[axis], moves[k])));
  });
}

/** Changes one output of the wall. */
export function editOutput(
  id: string,
  change: (output: ScreenOutput) => void,
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

export const allScreens = (): string[] => showStore.getState().show.wall.outputs.map(({ id }) => id);
