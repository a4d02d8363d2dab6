import type { FileSpec } from '../kind/controls';

/** A file that ships with the app and can be used in every show. */
export interface ShippedFile {
  id: string;
  name: string;
  accepts: FileSpec['accepts'];
  /** Below the app's own address. */
  path: string;
}

const shippedFile = (file: string, name: string, accepts: FileSpec['accepts']): ShippedFile => ({
  id: `shipped:${file}`,
  name,
  accepts,
  path: `/media/${file}`,
});

export const shippedFiles: readonly ShippedFile[] = [
  shippedFile('comb-crest.svg', 'Comb crest', 'picture'),
  shippedFile('wax-pane.webp', 'Wax pane', 'picture'),
  shippedFile('skep.glb', 'Skep of straw', 'model'),
  shippedFile('glasshouse.glb', 'Glasshouse', 'model'),
  shippedFile('ember-swarm.webm', 'Ember swarm', 'clip'),
  shippedFile('first-frost.cube', 'First frost', 'look'),
  shippedFile('late-amber.cube', 'Late amber', 'look'),
];
