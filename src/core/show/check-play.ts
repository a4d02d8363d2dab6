import { deskControls, targetSpec } from '../desk/value';
import type { Show } from '../document/types';
import type { Catalogue } from '../kind/kind';
import type { Finding } from './finding';

/** Findings of what is played by hand: ids that stand twice, and what names something that is not there. */
export function checkPlay(show: Show, catalogue: Catalogue): Finding[] {
  const findings: Finding[] = [];
  const say = (level: Finding['level'], where: string, what: string): void =>
    void findings.push({ level, where, what });
  const once = (where: string, what: string, items: readonly { id: string }[]): Set<string> => {
    const ids = new Set<string>();
    for (const { id } of items) {
      if (ids.has(id)) say('error', where, `Two ${what} have the id ${id}.`);
      ids.add(id);
    }
    return ids;
  };
  once('desk', 'pages', show.desk);
  const controls = once(
    'desk',
    'desk controls',
    deskControls(show.desk).map(({ control }) => control),
  );
  const snapshots = once('snapshots', 'snapshots', show.snapshots);
  const cues = once('cues', 'cues', show.cues);
  once('bindings', 'bindings', show.bindings);
  const scenes = new Set(show.scenes.map(({ id }) => id));
  const miss = (where: string, what: string, id: string | null, there: ReadonlySet<string>): void => {
    if (id !== null && !there.has(id))
      say('warning', where, `The show has no ${what} ${id}. Choose another.`);
  };
  show.desk.forEach((page, p) => {
    miss(`desk[${p}].scene`, 'scene', page.scene, scenes);
    page.corners.forEach((id, k) => miss(`desk[${p}].corners[${k}]`, 'snapshot', id, snapshots));
    page.controls.forEach((control, c) => {
      control.targets.forEach((target, t) => {
        if (!targetSpec(show, target, catalogue))
          say(
            'warning',
            `desk[${p}].controls[${c}].targets[${t}]`,
            `${control.name} moves ${target.part} of ${target.node}, which is not there. Take it off, or choose another.`,
          );
      });
    });
  });
  show.snapshots.forEach((one, k) => miss(`snapshots[${k}].scene`, 'scene', one.scene, scenes));
  show.cues.forEach((cue, k) => {
    miss(`cues[${k}].scene`, 'scene', cue.scene, scenes);
    miss(`cues[${k}].snapshot`, 'snapshot', cue.snapshot, snapshots);
    miss(`cues[${k}].back`, 'cue', cue.back?.cue ?? null, cues);
    cue.moves.forEach(({ control }, m) => miss(`cues[${k}].moves[${m}]`, 'desk control', control, controls));
  });
  show.bindings.forEach(({ target }, k) => {
    const where = `bindings[${k}]`;
    if (target.type === 'desk') miss(where, 'desk control', target.control, controls);
    else if (target.type === 'scene') miss(where, 'scene', target.scene, scenes);
    else if (target.type === 'snapshot') miss(where, 'snapshot', target.snapshot, snapshots);
  });
  miss('home.scene', 'scene', show.home.scene, scenes);
  miss('home.snapshot', 'snapshot', show.home.snapshot, snapshots);
  return findings;
}
