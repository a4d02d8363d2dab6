import type { Show, Transition } from '../document/types';
import { kindOf, type Catalogue } from '../kind/kind';
import { catalogueWith } from '../module/show-catalogue';

/** All transitions of a show: its own, and those of cues. */
const transitionsOf = (show: Show): Transition[] => [
  show.transition,
  ...show.cues.flatMap(({ transition }) => transition ?? []),
];

/** Ids of the files that nodes, inputs and the wall of a show really use, without those that ship with the app. */
export function usedFiles(show: Show, shipped: Catalogue): string[] {
  const catalogue = catalogueWith(shipped, show.modules);
  const used = new Set<string>();
  for (const patch of [...show.scenes, ...Object.values(show.modules)]) {
    for (const node of Object.values(patch.nodes)) {
      for (const [name, spec] of Object.entries(kindOf(catalogue, node)?.controls ?? {})) {
        const value = node.controls[name];
        if (spec.type === 'file' && typeof value === 'string' && Object.hasOwn(show.files, value))
          used.add(value);
      }
    }
  }
  for (const file of [show.inputs.sound.file, show.inputs.midi.file, show.wall.venue ?? ''])
    if (Object.hasOwn(show.files, file)) used.add(file);
  for (const { mask } of transitionsOf(show))
    if (mask?.from === 'file' && Object.hasOwn(show.files, mask.id)) used.add(mask.id);
  return [...used];
}

/** Renames files of a show, wherever a node or an input uses them. Changes the show in place. */
export function renameFiles(show: Show, shipped: Catalogue, names: ReadonlyMap<string, string>): void {
  const catalogue = catalogueWith(shipped, show.modules);
  const other = (id: string): string => names.get(id) ?? id;
  show.files = Object.fromEntries(Object.entries(show.files).map(([id, file]) => [other(id), file]));
  for (const patch of [...show.scenes, ...Object.values(show.modules)]) {
    for (const node of Object.values(patch.nodes)) {
      for (const [name, spec] of Object.entries(kindOf(catalogue, node)?.controls ?? {})) {
        const value = node.controls[name];
        if (spec.type === 'file' && typeof value === 'string') node.controls[name] = other(value);
      }
    }
  }
  show.inputs.sound.file = other(show.inputs.sound.file);
  show.inputs.midi.file = other(show.inputs.midi.file);
  for (const { mask } of transitionsOf(show)) if (mask?.from === 'file') mask.id = other(mask.id);
  if (show.wall.venue !== null) show.wall.venue = other(show.wall.venue);
}
