import { moduleIdOf } from '../../core/module/module-kind';
import { catalogueWith } from '../../core/module/show-catalogue';
import { relaysFor, takeSceneApart } from '../../core/module/take-apart';
import type { Scene } from '../../core/document/types';
import type { Kind } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { exampleOf } from '../../nodes/examples';
import { modulesWith } from '../data/module-library';
import { showStore } from '../data/show-store';

const allModules = () => modulesWith(showStore.getState().show.modules);

/** The example of a kind; of a module too, wherever that is. */
export const exampleWithModules = (kind: Kind): Scene =>
  moduleIdOf(kind.id) === null ? exampleOf(kind) : exampleOf(kind, catalogueWith(catalogue, allModules()));

/** An example as the engine can play it that does not know its modules. */
export function exampleApart(example: Scene): Scene {
  if (Object.values(example.nodes).every(({ kind }) => moduleIdOf(kind) === null)) return example;
  const modules = allModules();
  const known = catalogueWith(catalogue, modules);
  return relaysFor(takeSceneApart(example, modules, known), known);
}
