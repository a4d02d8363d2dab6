import type { Module } from '../document/types';
import type { Catalogue, Kind } from '../kind/kind';
import { moduleIdOf, moduleKindId, moduleKinds, takenApartId, type ModuleKinds } from './module-kind';

/**
 * All node kinds of an open show: those that ship, and one for each of its modules. It is one object for as long as the program runs,
 * since kinds are looked up everywhere; what a module's kind follows from decides when it is another one.
 */
export class ShowCatalogue extends Map<string, Kind> {
  private taken: Readonly<Record<string, Module>> = {};
  private readonly made = new Map<string, ModuleKinds>();
  /** Kinds of modules that were taken apart: nobody chooses these, so no list shows them. */
  private readonly apart = new Map<string, Kind>();

  override get(id: string): Kind | undefined {
    return super.get(id) ?? this.apart.get(id);
  }

  /** Takes over the modules of a show; gives whether any kind is another than before. Cheap where they are the very ones it has. */
  take(modules: Readonly<Record<string, Module>>): boolean {
    if (modules === this.taken) return false;
    let changed = Object.keys(this.taken).some((id) => !Object.hasOwn(modules, id));
    const before = this.taken;
    this.taken = modules;
    for (const id of Object.keys(before)) if (!Object.hasOwn(modules, id)) this.forget(id);
    const underWay = new Set<string>();
    const done = new Set<string>();
    const bring = (id: string): void => {
      if (underWay.has(id) || done.has(id)) return;
      underWay.add(id);
      const module = modules[id];
      // Modules inside come first: controls of this one may be theirs.
      for (const { kind } of Object.values(module.nodes)) {
        const inner = moduleIdOf(kind);
        if (inner !== null && Object.hasOwn(modules, inner)) bring(inner);
      }
      underWay.delete(id);
      done.add(id);
      const kinds = moduleKinds(module, this, this.made.get(id));
      changed ||= kinds !== this.made.get(id);
      this.made.set(id, kinds);
      this.set(moduleKindId(id), kinds.shown);
      this.apart.set(takenApartId(moduleKindId(id)), kinds.apart);
    };
    for (const id of Object.keys(modules)) bring(id);
    return changed;
  }

  private forget(id: string): void {
    this.made.delete(id);
    this.delete(moduleKindId(id));
    this.apart.delete(takenApartId(moduleKindId(id)));
  }
}

/** A catalogue with the modules of a show beside the kinds of another. */
export function catalogueWith(
  catalogue: Catalogue,
  modules: Readonly<Record<string, Module>>,
): ShowCatalogue {
  const own = new ShowCatalogue();
  for (const [id, kind] of catalogue) if (moduleIdOf(id) === null) own.set(id, kind);
  own.take(modules);
  return own;
}
