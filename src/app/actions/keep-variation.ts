import { onDesk } from '../../core/desk/value';
import { canLieOnDesk, putOnDesk } from '../../core/show/edit-desk';
import { sceneOfPlace, placeAround } from '../../core/module/place';
import { EditError } from '../../core/show/edit';
import type { Variable } from '../../core/show/variations';
import { catalogue } from '../../nodes/catalogue';
import { editShow, showStore } from '../data/show-store';
import { say } from '../parts/notices';
import { takeSnapshot } from './play-actions';

/** Most controls that are put on the desk for a snapshot: more would bury those that are played. */
const mostFresh = 24;

/** Keeps how a scene stands as a snapshot of the desk; what varies is put on its page first, as far as it can lie there. */
export function keepAsSnapshot(place: string, variables: readonly Variable[]): void {
  if (placeAround(place)) {
    say({
      tone: 'warning',
      text: 'Snapshots are of the desk. Bring controls out of the module, and keep it from its scene.',
    });
    return;
  }
  const scene = sceneOfPlace(place);
  const { show } = showStore.getState();
  const wanted = variables.filter(({ spec }) => canLieOnDesk(spec) && spec.type !== 'vector');
  const fresh = wanted.filter(({ node, control }) => onDesk(show, scene, node, control) === null);
  if (fresh.length > mostFresh) {
    say({
      tone: 'warning',
      text: `${fresh.length} controls vary that are not on the desk. Lock what stays until ${mostFresh} are left, then keep it.`,
    });
    return;
  }
  const page = editShow((draft) => {
    for (const { node, control } of fresh) {
      try {
        putOnDesk(draft, catalogue, { scene, node, part: control });
      } catch (error) {
        if (!(error instanceof EditError)) throw error;
      }
    }
    return (draft.desk.find((one) => one.scene === scene) ?? draft.desk[0])?.id ?? null;
  });
  if (!page) return;
  takeSnapshot(page);
  say({ tone: 'info', text: 'It is kept as a snapshot on the desk of Play.' });
}
