import { ShowApart } from '../src/core/module/take-apart';
import { sceneOutOf } from '../src/core/patch/plan';
import { sceneFindings, type SceneMeasure } from '../src/core/preflight/scene-check';
import { loopReport } from '../src/core/show/loop-report';
import { usedFiles } from '../src/core/show/used-files';
import type { Finding } from '../src/core/show/finding';
import type { Scene, Show } from '../src/core/document/types';
import { SceneRun } from '../src/core/run/scene-run';
import { catalogue } from '../src/nodes/catalogue';
import type { Options } from './arguments';
import { readRenderer } from './browser';
import { findScene } from './find';
import { withEngine } from './render';

/** Seconds of a scene that are measured at the most: longer loops are looked at from their start. */
const longest = 60;

/** A scene of a show, and its place in the document. */
interface Placed {
  scene: Scene;
  where: string;
}

function placed(show: Show, names: readonly string[]): Placed[] {
  const wanted = names.length ? names.map((name) => findScene(show, name)) : show.scenes;
  return wanted.map((scene) => ({ scene, where: `scenes[${show.scenes.indexOf(scene)}] ${scene.name}` }));
}

/** What is known without drawing: files that are not there, rates that do not fit their loop, nodes that nobody sees. */
function standing(show: Show, scenes: readonly Placed[], files: ReadonlyMap<string, Uint8Array>): Finding[] {
  const findings: Finding[] = [];
  for (const id of usedFiles(show, catalogue))
    if (!files.has(id))
      findings.push({
        level: 'error',
        where: `files.${id}`,
        what: `${show.files[id].name} is missing. Pack the show with its files (pyrvel pack), or choose another.`,
      });
  for (const { scene, where } of scenes) {
    const off = loopReport(scene, catalogue, show.tempo, show.canvas.fps).paces.filter(
      ({ nearest }) => nearest !== null,
    );
    if (off.length && !scene.loop.lock)
      findings.push({
        level: 'warning',
        where,
        what: `${off.length} rates do not fit its loop, the first on ${scene.nodes[off[0].node].name}: pyrvel loops lists them with the nearest that fit.`,
      });
  }
  return findings;
}

/** Whether anything that a scene shows depends on more than its moment. */
function remembers(show: Show, scene: Scene): boolean {
  const run = new SceneRun(catalogue);
  const out = sceneOutOf(scene, catalogue);
  if (out === null) return false;
  run.update(new ShowApart(catalogue).of({ ...show, scenes: [scene] }).scenes[0], [out]);
  return run.remembers;
}

/**
 * Checks scenes of a show before they go on stage, as they are drawn: flashes that can hurt, loops that do not close, files that are missing.
 * `say` is told each finding as it is found. Gives whether anything must not go on stage.
 */
export async function preflight(
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: Options,
  say: (line: string) => void,
): Promise<boolean> {
  const scenes = placed(show, options.all('scene'));
  let fails = false;
  const tell = ({ level, where, what }: Finding): void => {
    fails ||= level === 'error';
    say(`${level}: ${where}: ${what}`);
  };
  standing(show, scenes, files).forEach(tell);
  // As many frames a second as the stage shows: what lies between them nobody sees.
  const { fps } = show.canvas;
  const part: Show = { ...show, scenes: scenes.map(({ scene }) => scene) };
  await withEngine(
    part,
    files,
    async (ask) => {
      for (const { scene, where } of scenes) {
        const { seconds } = loopReport(scene, catalogue, show.tempo, fps);
        const frames = Math.max(1, Math.round(Math.min(seconds, longest) * fps));
        const seen = await ask<Omit<SceneMeasure, 'seconds' | 'remembers'>>(
          scene.name,
          'measure',
          scene.id,
          frames,
          fps,
        );
        const measure = { ...seen, seconds, remembers: remembers(show, scene) };
        // Of a loop that is longer than what was looked at, the end was not seen.
        if (seconds > longest) measure.seam = { mean: 0, worst: 0 };
        const findings = sceneFindings(where, measure);
        findings.forEach(tell);
        if (!findings.length) say(`fine: ${where}`);
      }
    },
    readRenderer(options.get('renderer')),
  );
  return fails;
}
