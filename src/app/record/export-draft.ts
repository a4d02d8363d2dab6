import { sceneOfPlace } from '../../core/module/place';
import { create } from 'zustand';
import { endingOf, homeSpec, loopFrames, sizeOfOutput, type ExportSpec } from '../../core/export/spec';
import type { Show } from '../../core/document/types';
import { sessionStore } from '../data/session';

/** The export that is being put together; null: none was begun in this show. */
export const draftStore = create<{ draft: ExportSpec | null; asksForFile: boolean; onFarm: boolean }>()(
  () => ({
    draft: null,
    onFarm: false,
    // Browsers that cannot write to the disk keep what is finished, to be saved from there.
    asksForFile: 'showSaveFilePicker' in window,
  }),
);

/** The draft as it fits a show: what it names and is gone begins anew with the scene that is open. */
export function draftFor(show: Show): ExportSpec {
  const { draft } = draftStore.getState();
  const scene =
    show.scenes.find(({ id }) => id === sceneOfPlace(sessionStore.getState().sceneId)) ?? show.scenes[0];
  if (!draft) return homeSpec(show, scene);
  const { source, output } = draft;
  const isGone =
    (source.type === 'scene' && !show.scenes.some(({ id }) => id === source.scene)) ||
    (output !== null && !show.wall.outputs.some(({ id }) => id === output));
  return isGone ? homeSpec(show, scene) : draft;
}

export const changeDraft = (show: Show, change: Partial<ExportSpec>): void =>
  draftStore.setState({ draft: { ...draftFor(show), ...change } });

/** The draft with another output, at its size and in a form that it can have. */
export function withOutput(show: Show, draft: ExportSpec, output: string | null): Partial<ExportSpec> {
  const [width, height] = sizeOfOutput(show, output);
  const isString = show.wall.outputs.find(({ id }) => id === output)?.type === 'string';
  if (isString) return { output, format: { type: 'pixels', as: 'csv' } };
  const format = draft.format.type === 'pixels' ? homeSpec(show, show.scenes[0]).format : { ...draft.format };
  if ('alpha' in format && output !== null) format.alpha = false;
  return { output, width, height, format };
}

/** Frames of a draft, as far as they can be known before the engine has played it. */
export function framesOfDraft(show: Show, { range, source, fps }: ExportSpec): number | null {
  if (range.type === 'frames') return range.last - range.first + 1;
  const scene = source.type === 'scene' && show.scenes.find(({ id }) => id === source.scene);
  if (!scene) return null;
  const closed = range.type === 'loop' && range.closed ? 1 : 0;
  return Math.max(1, Math.round(loopFrames(show, scene, fps))) + closed;
}

interface Pickers {
  showSaveFilePicker(options: object): Promise<FileSystemFileHandle>;
  showDirectoryPicker(options: object): Promise<FileSystemDirectoryHandle>;
}

/** Asks where an export is to be written; undefined: it was taken back. */
export async function askForGoal(
  spec: ExportSpec,
  isSequence: boolean,
  name: string,
): Promise<FileSystemFileHandle | FileSystemDirectoryHandle | undefined> {
  const pickers = window as unknown as Pickers;
  try {
    return isSequence
      ? await pickers.showDirectoryPicker({ id: 'pyrvel-export', mode: 'readwrite' })
      : await pickers.showSaveFilePicker({ id: 'pyrvel-export', suggestedName: name });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return undefined;
    throw new Error(`The browser gives no place to write ${endingOf(spec.format)} files to.`);
  }
}
