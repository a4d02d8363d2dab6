import type { Kind } from '../core/kind/kind';
import { moduleIdOf } from '../core/module/module-kind';
import { ShowCatalogue } from '../core/module/show-catalogue';
import { allKinds } from './catalogue.generated';

export type Family = (typeof allKinds)[number]['family'] | 'module';

export const familyLabels: Readonly<Record<Family, string>> = {
  image: 'Images',
  signal: 'Signals',
  shape: 'Shapes',
  prop: 'Props',
  field: 'Distance fields',
  flow: 'Flow',
  module: 'Modules',
};

const kinds = new ShowCatalogue();
const families = new Map<string, Family>();
for (const { family, kind } of allKinds) {
  if (kinds.has(kind.id)) throw new Error(`Two node kinds have the id ${kind.id}.`);
  kinds.set(kind.id, kind as unknown as Kind);
  families.set(kind.id, family);
}

/** Every node kind there is, by id: those that ship, and those of the modules of the show that is open. */
export const catalogue: ShowCatalogue = kinds;

export const familyOf = (kind: Kind): Family =>
  families.get(kind.id) ?? (moduleIdOf(kind.id) === null ? 'flow' : 'module');
