import type { Catalogue, Kind } from '../core/kind/kind';
import { allKinds } from './catalogue.generated';

export type Family = (typeof allKinds)[number]['family'];

export const familyLabels: Readonly<Record<Family, string>> = {
  image: 'Images',
  signal: 'Signals',
  shape: 'Shapes',
  prop: 'Props',
  field: 'Distance fields',
  flow: 'Flow',
};

const kinds = new Map<string, Kind>();
const families = new Map<string, Family>();
for (const { family, kind } of allKinds) {
  if (kinds.has(kind.id)) throw new Error(`Two node kinds have the id ${kind.id}.`);
  kinds.set(kind.id, kind as unknown as Kind);
  families.set(kind.id, family);
}

/** Every node kind there is, by id. */
export const catalogue: Catalogue = kinds;

export const familyOf = (kind: Kind): Family => families.get(kind.id)!;
