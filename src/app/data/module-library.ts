import { create } from 'zustand';
import type { ModulePack } from '../../core/show/module-pack';
import type { Scene } from '../../core/document/types';
import type { Kind } from '../../core/kind/kind';
import { catalogueWith, type ShowCatalogue } from '../../core/module/show-catalogue';
import { moduleIdOf, moduleKindId } from '../../core/module/module-kind';
import { catalogue } from '../../nodes/catalogue';
import { database, type StoredModule } from './db';

interface Library {
  /** Modules that were kept in this browser, by name. */
  modules: readonly StoredModule[];
  /** Modules that ship with the app; empty until they were loaded. */
  shipped: readonly ModulePack[];
}

/** Modules beside those of the show. */
export const libraryStore = create<Library>()(() => ({ modules: [], shipped: [] }));

let loading: Promise<void> | null = null;

async function read(): Promise<void> {
  const modules = await database.modules.toArray();
  libraryStore.setState({ modules: modules.sort((a, b) => a.name.localeCompare(b.name)) });
}

/** Loads the library when it is first needed. */
export function loadLibrary(): Promise<void> {
  loading ??= (async () => {
    const { shippedModules } = await import('../../nodes/modules/shipped');
    libraryStore.setState({ shipped: shippedModules });
    await read();
  })();
  return loading;
}

export async function putInLibrary(module: StoredModule): Promise<void> {
  await loadLibrary();
  await database.modules.put(module);
  await read();
}

export async function removeFromLibrary(id: string): Promise<void> {
  await database.modules.delete(id);
  await read();
}

/** Every pack that can be added, those of this browser before those that ship. */
function packs({ modules, shipped }: Library = libraryStore.getState()): ModulePack[] {
  const own = modules.map(({ pack }) => pack);
  return [...own, ...shipped.filter(({ main }) => !own.some((pack) => pack.main === main))];
}

let known: { of: Library; kinds: ShowCatalogue } | null = null;

/** Kinds of the modules of the library, as if a show had them all. */
function libraryCatalogue(): ShowCatalogue {
  const library = libraryStore.getState();
  if (known?.of !== library) {
    const all = Object.assign(
      {},
      ...packs(library)
        .toReversed()
        .map(({ modules }) => modules),
    ) as ModulePack['modules'];
    known = { of: library, kinds: catalogueWith(catalogue, all) };
  }
  return known.kinds;
}

/** Kinds of modules of the library that the open show does not have yet. */
export const libraryKinds = (library: Library): Kind[] =>
  packs(library).flatMap(({ main }) => {
    const kind = catalogue.has(moduleKindId(main)) ? undefined : libraryCatalogue().get(moduleKindId(main));
    return kind ?? [];
  });

/** All kinds: those that ship, of the show, and of the library. */
export const kindAnywhere = (id: string): Kind | undefined => catalogue.get(id) ?? libraryCatalogue().get(id);

/** What a show needs for a node of a kind: the pack of its module, if it is one of the library. */
export function packOfKind(kind: string): ModulePack[] {
  const module = moduleIdOf(kind);
  const pack = module === null ? null : packOf(module);
  return pack ? [pack] : [];
}

/** The same for several nodes. */
export const packsFor = (nodes: Scene['nodes']): ModulePack[] =>
  Object.values(nodes).flatMap(({ kind }) => packOfKind(kind));

/** What a show needs for nodes of a module of the library; null if the library has none of that id. */
export const packOf = (module: string): ModulePack | null =>
  packs().find(({ main }) => main === module) ?? null;

/** All modules that are known here: those of the library, and before them those of a show. */
export const modulesWith = (own: ModulePack['modules']): ModulePack['modules'] =>
  Object.assign(
    {},
    ...packs()
      .toReversed()
      .map(({ modules }) => modules),
    own,
  ) as ModulePack['modules'];
