import { idleInputs } from '../src/core/inputs/inputs';
import { SceneRun } from '../src/core/run/scene-run';
import { whyDark } from '../src/core/run/why-dark';
import { sceneOutOf } from '../src/core/patch/plan';
import { checkForm, readShow, ShowFileError, writeShow } from '../src/core/show/validate';
import { momentAt } from '../src/core/time/clock';
import { oneStep } from '../src/core/time/feedback-steps';
import { catalogue } from '../src/nodes/catalogue';

/**
 * Opens a document as a performer would and plays each scene for a moment. Gives whether it was opened; throws if it was
 * neither refused with a sentence and a place, nor plays.
 */
export function trial(document: unknown): boolean {
  let read: ReturnType<typeof readShow>;
  try {
    read = readShow(JSON.stringify(document), catalogue);
  } catch (error) {
    if (!(error instanceof ShowFileError)) throw error;
    if (error.findings.some(({ what, level }) => level !== 'error' || !/[.!?]$/.test(what)))
      throw new Error(`A refusal without a sentence: ${JSON.stringify(error.findings[0])}`);
    return false;
  }
  const { show } = read;
  const form = checkForm(show);
  if (form.length) throw new Error(`What was read is no show: ${JSON.stringify(form[0])}`);
  const again = readShow(writeShow(show), catalogue);
  if (writeShow(again.show) !== writeShow(show)) throw new Error('Read once more, it is another show.');
  for (const scene of show.scenes) {
    const run = new SceneRun(catalogue);
    const out = sceneOutOf(scene, catalogue);
    run.update(scene, Object.keys(scene.nodes));
    for (let frame = 0; frame < 3; frame++)
      run.run({
        moment: momentAt(frame / 60, frame ? 1 / 60 : 0, 60, show.tempo, undefined, scene.loop),
        live: idleInputs(),
        canvas: { width: 160, height: 90 },
        feedback: oneStep,
      });
    for (const [id, fault] of run.faults())
      if (/undefined|Cannot read|is not a|\[object|NaN/.test(fault)) throw new Error(`${id} says: ${fault}`);
    const reasons = whyDark(run, out, 16 / 9);
    for (const { sentence } of reasons)
      if (/undefined|\[object|NaN/.test(sentence)) throw new Error(`Why dark says: ${sentence}`);
  }
  return true;
}
