import type { PatchNode, Scene, Show, Wire } from '../document/types';
import { kindOf, type Catalogue } from '../kind/kind';
import { portLabel } from '../patch/wiring';
import { changesBetween, type ShowChange } from './changes';

/** What an edit did. */
export interface Described {
  text: string;
  /** The scene it was made in; null: the show as a whole, or a module. */
  scene: string | null;
}

const headNames: Readonly<Partial<Record<keyof Show, string>>> = {
  name: 'Name of the show',
  tempo: 'Tempo',
  canvas: 'Canvas of the show',
  transition: 'Transition',
  desk: 'Desk',
  snapshots: 'Snapshots',
  cues: 'Running order',
  bindings: 'Bindings',
  moves: 'Recorded moves',
  home: 'Home',
  inputs: 'Inputs',
  wall: 'Wall',
  files: 'Files of the show',
};

const partLabelOf = (catalogue: Catalogue, node: PatchNode, part: string): string => {
  const kind = kindOf(catalogue, node);
  return kind ? portLabel(kind, part) : part;
};

/** Keys under which two records hold something else. */
const differing = (a: object, b: object): string[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (key) => JSON.stringify(a[key as keyof typeof a]) !== JSON.stringify(b[key as keyof typeof b]),
  );

/** What became of a node, in a few words; null: nothing that counts, as a formula that only follows a name. */
function nodeChange(before: PatchNode, after: PatchNode, catalogue: Catalogue): string | null {
  if (before.name !== after.name) return `${before.name} renamed to ${after.name}`;
  if (before.on !== after.on) return `${after.name} switched ${after.on ? 'on' : 'off'}`;
  const controls = differing(before.controls, after.controls);
  const labels = (parts: readonly string[]): string =>
    parts.length > 2
      ? `${parts.length} controls`
      : parts.map((part) => partLabelOf(catalogue, after, part)).join(' and ');
  if (controls.length) return `${labels(controls)} of ${after.name}`;
  const formulas = differing(before.formulas, after.formulas);
  if (formulas.length) return `Formula on ${labels(formulas)} of ${after.name}`;
  const motions = differing(before.motions, after.motions);
  if (motions.length) return `Motions on ${labels(motions)} of ${after.name}`;
  if (JSON.stringify(before.place) !== JSON.stringify(after.place)) return `${after.name} moved`;
  const rest = differing(before, after);
  return rest.length ? `${rest[0] === 'size' ? 'Size' : 'Settings'} of ${after.name}` : null;
}

/** What became of nodes and wires of a patch, the most telling first. */
function patchChanges(
  before: Pick<Scene, 'nodes' | 'wires'>,
  after: Pick<Scene, 'nodes' | 'wires'>,
  catalogue: Catalogue,
): string[] {
  const added = Object.values(after.nodes).filter(({ id }) => !Object.hasOwn(before.nodes, id));
  const gone = Object.values(before.nodes).filter(({ id }) => !Object.hasOwn(after.nodes, id));
  const said: string[] = [];
  const listed = (nodes: readonly PatchNode[], what: string): void => {
    if (nodes.length)
      said.push(
        nodes.length > 2
          ? `${nodes.length} nodes ${what}`
          : `${nodes.map(({ name }) => name).join(', ')} ${what}`,
      );
  };
  listed(added, 'added');
  listed(gone, 'deleted');
  const changed = Object.values(after.nodes).flatMap((node) => {
    const old = before.nodes[node.id] as PatchNode | undefined;
    const text = old && old !== node ? nodeChange(old, node, catalogue) : null;
    return text ? [text] : [];
  });
  const moved = changed.filter((text) => text.endsWith(' moved'));
  said.push(...changed.filter((text) => !text.endsWith(' moved')));
  if (moved.length) said.push(moved.length > 1 ? `${moved.length} nodes moved` : moved[0]);
  const name = (id: string): string => (after.nodes[id] ?? before.nodes[id])?.name ?? id;
  const wire = ({ from, to }: Wire): string => `${name(from.node)} into ${name(to.node)}`;
  for (const id of differing(before.wires, after.wires)) {
    const old = before.wires[id] as Wire | undefined;
    const now = after.wires[id] as Wire | undefined;
    if (!old && now) said.push(`${wire(now)} wired`);
    else if (old && !now) {
      // Wires of nodes that went go with them.
      if (!gone.some((node) => node.id === old.from.node || node.id === old.to.node))
        said.push(`Wire from ${wire(old)} removed`);
    } else if (now) said.push(`Wire from ${wire(now)}`);
  }
  return said;
}

const sceneOf = (change: ShowChange): string | null => ('scene' in change ? change.scene : null);

/** What differs between two states of a show, in short lines; the most telling first. */
export function differences(before: Show, after: Show, catalogue: Catalogue): Described[] {
  const said: Described[] = [];
  const changes = changesBetween(before, after);
  const say = (text: string, scene: string | null = null): void => void said.push({ text, scene });
  for (const change of changes) {
    if (change.type === 'scenes') {
      const old = new Set(before.scenes.map(({ id }) => id));
      for (const { id, name } of change.added) say(`Scene ${name} added`, id);
      const now = new Set(change.order);
      for (const scene of before.scenes) if (!now.has(scene.id)) say(`Scene ${scene.name} deleted`);
      if (!change.added.length && now.size === old.size) say('Scenes in another order');
    } else if (change.type === 'module') {
      const old = before.modules[change.id] as Show['modules'][string] | undefined;
      if (!change.module) say(`Module ${old?.name ?? change.id} removed`);
      else if (!old) say(`Module ${change.module.name} made`);
      else {
        const inside = patchChanges(old, change.module, catalogue);
        say(`${inside[0] ?? 'Controls'} in the module ${change.module.name}`);
      }
    }
  }
  const scenes = new Set(
    changes.flatMap((change) => (change.type === 'scenes' ? [] : (sceneOf(change) ?? []))),
  );
  for (const id of scenes) {
    const [old, now] = [before, after].map(({ scenes: all }) => all.find((scene) => scene.id === id));
    if (!old || !now) continue;
    for (const text of patchChanges(old, now, catalogue)) say(text, id);
    if (old.name !== now.name) say(`Scene ${old.name} renamed to ${now.name}`, id);
    if (JSON.stringify(old.loop) !== JSON.stringify(now.loop)) say(`Loop of ${now.name}`, id);
    if (JSON.stringify(old.frames) !== JSON.stringify(now.frames)) say(`Frames and notes of ${now.name}`, id);
    if (JSON.stringify(old.button) !== JSON.stringify(now.button)) say(`Button of ${now.name}`, id);
  }
  if (changes.some(({ type }) => type === 'head'))
    for (const [key, label] of Object.entries(headNames))
      if (before[key as keyof Show] !== after[key as keyof Show]) say(label);
  return said;
}

/** What an edit did, in one line. */
export function describeChange(before: Show, after: Show, catalogue: Catalogue): Described {
  const said = differences(before, after, catalogue);
  const [first] = said;
  if (!first) return { text: 'Nothing that is seen', scene: null };
  const more = said.length - 1;
  return { text: more > 0 ? `${first.text}, and ${more} more` : first.text, scene: first.scene };
}
