import { kindOf } from '../../core/kind/kind';
import { kindBetween } from '../../core/patch/between';
import { addNode, connect } from '../../core/show/edit';
import { freePlace } from '../../core/show/free-place';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { editScene } from '../data/show-store';
import { say } from '../parts/notices';

const listed = (words: readonly string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} or ${words.at(-1)}` : (words[0] ?? 'nothing');

/** Says why a node cannot take what another gives, and offers the node that is missing between them. */
export function refuseWire(scene: Scene, from: string, to: string): void {
  const [source, target] = [scene.nodes[from], scene.nodes[to]];
  const [sourceKind, targetKind] = [kindOf(catalogue, source), kindOf(catalogue, target)];
  if (!sourceKind || !targetKind) return;
  const taken = Object.values(targetKind.inputs).flatMap((spec) =>
    spec.also ? [spec.carries, spec.also] : spec.carries,
  );
  const text = `${source.name} gives ${sourceKind.output}; ${target.name} takes ${listed([...new Set(taken)])}.`;
  const between = from === to ? null : kindBetween(catalogue, sourceKind.output, targetKind);
  if (!between) {
    say({ tone: 'warning', text });
    return;
  }
  const run = (): void => {
    const id = editScene(scene.id, (draft) => {
      const [[ax, ay], [bx, by]] = [draft.nodes[from].place, draft.nodes[to].place];
      const fresh = addNode(
        draft,
        catalogue,
        between.kind.id,
        freePlace(draft, [(ax + bx) / 2, (ay + by) / 2]),
      );
      connect(draft, catalogue, from, fresh, between.into);
      connect(draft, catalogue, fresh, to, between.port);
      return fresh;
    });
    if (id) choose([id]);
  };
  say({ tone: 'warning', text, action: { label: `Put a ${between.kind.label} between`, run } });
}
