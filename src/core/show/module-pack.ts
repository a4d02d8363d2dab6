import type { Module, Show } from '../document/types';
import type { Catalogue } from '../kind/kind';
import { endsOf, moduleIdOf, moduleKindId } from '../module/module-kind';
import { catalogueWith } from '../module/show-catalogue';
import { modulesInside } from './check-module';
import { makeShow, structuredCloneOf } from './create';
import { freeModuleId } from './edit-module';
import { usedFiles } from './used-files';

/** A module with all that it needs: modules inside of it, and the files that they name. */
export interface ModulePack {
  /** The module that it is about. */
  main: string;
  modules: Record<string, Module>;
  files: Show['files'];
}

/** A module of a show, packed to go elsewhere. */
export function packModule(show: Show, catalogue: Catalogue, id: string): ModulePack {
  const ids = [id, ...modulesInside(show.modules, id)].filter((one) => Object.hasOwn(show.modules, one));
  const modules = Object.fromEntries(ids.map((one) => [one, structuredCloneOf(show.modules[one])]));
  const alone = { ...makeShow(catalogue, ''), modules, files: show.files };
  const files = Object.fromEntries(usedFiles(alone, catalogue).map((file) => [file, show.files[file]]));
  return { main: id, modules, files };
}

/** A module as far as it counts for whether two are the same. */
const contentOf = ({ version, ...module }: Module): string => {
  void version;
  return JSON.stringify(module, (_, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
};

export const isSameModule = (a: Module, b: Module): boolean => contentOf(a) === contentOf(b);

/** What another version of a module changes, in sentences. */
export function moduleChanges(before: Module, after: Module, catalogue: Catalogue): string[] {
  const known = catalogueWith(catalogue, { [after.id]: after });
  const list = (names: readonly string[]): string => names.join(', ');
  const said: string[] = [];
  const compare = (
    what: string,
    old: ReadonlyMap<string, string>,
    now: ReadonlyMap<string, string>,
  ): void => {
    const added = [...now].filter(([id]) => !old.has(id)).map(([, name]) => name);
    const gone = [...old].filter(([id]) => !now.has(id)).map(([, name]) => name);
    if (added.length) said.push(`New ${what}: ${list(added)}.`);
    if (gone.length) said.push(`No more ${what}: ${list(gone)}. What drives them is taken away.`);
  };
  const controls = (module: Module): Map<string, string> =>
    new Map(module.controls.map(({ id, name }) => [id, name]));
  compare('controls', controls(before), controls(after));
  const ends = (module: Module, end: 'in' | 'out'): Map<string, string> =>
    new Map(endsOf(module, known)[end].map(({ id, name }) => [id, name]));
  compare('inputs', ends(before, 'in'), ends(after, 'in'));
  compare('outputs', ends(before, 'out'), ends(after, 'out'));
  const changed = after.controls.filter((control) => {
    const old = before.controls.find(({ id }) => id === control.id);
    return old && JSON.stringify([old.range, old.home]) !== JSON.stringify([control.range, control.home]);
  });
  if (changed.length) said.push(`Other range or home: ${list(changed.map(({ name }) => name))}.`);
  const ids = new Set([...Object.keys(before.nodes), ...Object.keys(after.nodes)]);
  let differ = 0;
  for (const id of ids) if (JSON.stringify(before.nodes[id]) !== JSON.stringify(after.nodes[id])) differ++;
  if (differ) said.push(`${differ} of its nodes ${differ === 1 ? 'differs' : 'differ'}.`);
  if (!said.length && !isSameModule(before, after)) said.push('Its wires or words differ.');
  return said;
}

/** What taking a pack over does to a show: nothing new, added, or another version of modules that are there. */
export function conflictsWith(show: Show, { modules }: ModulePack): { before: Module; after: Module }[] {
  return Object.values(modules).flatMap((after) => {
    const before = Object.hasOwn(show.modules, after.id) ? show.modules[after.id] : null;
    return before && !isSameModule(before, after) ? [{ before, after }] : [];
  });
}

/**
 * Takes the modules of a pack over into a show, changing it in place. Where a module of that id differs, `conflict` says: the one of
 * the pack replaces it in all places, that of the show stays, or that of the pack comes beside it under another id. Gives the id of the main module.
 */
export function takeModules(
  show: Show,
  pack: ModulePack,
  conflict: 'replace' | 'keep' | 'beside' = 'keep',
): string {
  const { main, modules, files } = structuredCloneOf(pack);
  const ids = new Map<string, string>();
  for (const module of Object.values(modules)) {
    const there = Object.hasOwn(show.modules, module.id) ? show.modules[module.id] : null;
    const differs = there !== null && !isSameModule(there, module);
    ids.set(
      module.id,
      differs && conflict === 'beside' ? freeModuleId(`${module.name} 2`, show.modules) : module.id,
    );
    if (!there || (differs && conflict !== 'keep')) {
      const id = ids.get(module.id)!;
      show.modules[id] = { ...module, id, name: id === module.id ? module.name : `${module.name} 2` };
    }
  }
  for (const [from, to] of ids) {
    if (from === to) continue;
    for (const id of ids.values())
      for (const node of Object.values(show.modules[id].nodes))
        if (node.kind === moduleKindId(from)) node.kind = moduleKindId(to);
  }
  for (const [id, file] of Object.entries(files)) show.files[id] ??= file;
  return ids.get(main)!;
}

/** Ids of modules that no node of a show is one of, however deep. */
export function unusedModules(show: Show): string[] {
  const used = new Set<string>();
  for (const scene of show.scenes)
    for (const { kind } of Object.values(scene.nodes)) {
      const id = moduleIdOf(kind);
      if (id === null || used.has(id)) continue;
      used.add(id);
      for (const inner of modulesInside(show.modules, id)) used.add(inner);
    }
  return Object.keys(show.modules).filter((id) => !used.has(id));
}
