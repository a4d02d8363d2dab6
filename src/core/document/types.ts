import type { Scene } from './types.generated';

export * from './types.generated';
export { showFormat, showVersion } from './version';

/** Nodes and wires: what a scene and a module have in common. */
export type Patch = Pick<Scene, 'id' | 'name' | 'nodes' | 'wires' | 'frames'>;
