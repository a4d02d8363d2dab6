import type { Show } from '../document/types';
import { kindOf, type Catalogue } from '../kind/kind';
import { fonts, isFont, type FontName } from '../text/layout';
import { hasWindow } from '../wall/outputs';
import { plainValue } from '../run/node-run';
import type { PreflightFinding } from './preflight-finding';

/** What the machine and its browser say of themselves; null: not known, or not told. */
export interface MachineFacts {
  /** Whether pictures are worked out by the processor. */
  isSoftware: boolean | null;
  /** Whether pictures of 16 and 32 bits can be drawn. */
  hasFloats: boolean | null;
  /** Whether videos can be decoded frame by frame. */
  hasCodecs: boolean;
  /** Shipped fonts whose files can't be loaded. */
  missingFonts: readonly FontName[];
  /** Whether the display can be kept from going to sleep. */
  staysAwake: boolean | null;
  displays: number | null;
  storage: { used: number; quota: number; isKept: boolean } | null;
  /** Whether Pyrvel's own server answers. */
  server: boolean | null;
  power: { isCharging: boolean; share: number } | null;
  midi: 'idle' | 'asking' | 'here' | 'away';
  sound: 'idle' | 'asking' | 'here' | 'away';
  /** Samples a second that sound is heard at. */
  soundRate: number | null;
}

/** Share of the storage from which it is nearly full. */
const fullShare = 0.9;

const megabytes = (bytes: number): string => `${Math.round(bytes / 1e6)} MB`;

/** Fonts that texts of a show are set in. */
function fontsOf({ scenes }: Show, catalogue: Catalogue): Set<string> {
  const used = new Set<string>();
  for (const { nodes } of scenes)
    for (const node of Object.values(nodes)) {
      const spec = kindOf(catalogue, node)?.controls.font;
      const font = spec && plainValue(spec, node.controls.font);
      if (typeof font === 'string' && isFont(font)) used.add(font);
    }
  return used;
}

function drawing(
  { isSoftware, hasFloats, hasCodecs, missingFonts }: MachineFacts,
  show: Show,
  catalogue: Catalogue,
) {
  const findings: PreflightFinding[] = [];
  if (isSoftware)
    findings.push({
      level: 'warning',
      where: 'This machine',
      what: 'This browser draws without a graphics card. Switch graphics acceleration on in its settings, or take another machine for the stage.',
    });
  if (hasFloats === false)
    findings.push({
      level: 'warning',
      where: 'This machine',
      what: 'This graphics card draws into 8 bits only: light above white is cut, and feedback keeps dark trails. Take another machine for the stage.',
    });
  const playsVideo = show.scenes.some(({ nodes }) =>
    Object.values(nodes).some((node) => kindOf(catalogue, node)?.id === 'clip'),
  );
  if (playsVideo && !hasCodecs)
    findings.push({
      level: 'error',
      where: 'This machine',
      what: 'The show plays videos, and this browser cannot decode them frame by frame (WebCodecs). Use a newer browser.',
    });
  const used = fontsOf(show, catalogue);
  const missing = missingFonts.filter((name) => used.has(name)).map((name) => fonts[name]);
  if (missing.length)
    findings.push({
      level: 'error',
      where: 'This machine',
      what: `Texts are set in ${missing.join(' and ')}, which can't be loaded, so they would look otherwise. Start Pyrvel's server again, and reload this page.`,
    });
  return findings;
}

function outputs({ displays, server }: MachineFacts, { wall, inputs, bindings }: Show) {
  const findings: PreflightFinding[] = [];
  const windows = wall.outputs.filter(hasWindow).length;
  if (displays !== null && windows > Math.max(1, displays - 1))
    findings.push({
      level: 'warning',
      where: 'wall',
      at: { view: 'wall' },
      what: `${windows} outputs want a display, and beside this one there ${displays === 2 ? 'is one' : `are ${Math.max(0, displays - 1)}`}. Plug the others in, or put several outputs on one.`,
    });
  const fed = wall.outputs.filter(
    (output) => output.type === 'string' && output.send.protocol !== 'none' && !output.send.simulated,
  );
  if (fed.length && server === false)
    findings.push({
      level: 'error',
      where: 'wall',
      at: { view: 'wall' },
      what: `${fed.map(({ name }) => name).join(', ')} get no light: Pyrvel's server does not answer. Start it again on this machine.`,
    });
  const usesOsc = bindings.some(({ source }) => source.type === 'osc') || inputs.osc.to !== '';
  if (usesOsc && server === false)
    findings.push({
      level: 'warning',
      where: 'inputs.osc',
      at: { view: 'inputs' },
      what: "OSC moves parts of this show, and it comes through Pyrvel's server, which does not answer. Start it again on this machine.",
    });
  return findings;
}

function devices({ midi, sound, soundRate }: MachineFacts, { inputs, bindings }: Show) {
  const findings: PreflightFinding[] = [];
  const byMidi = bindings.filter(({ source }) => ['control', 'note', 'bend'].includes(source.type)).length;
  const codeByMidi = inputs.code === 'midi' || inputs.clock === 'midi';
  if ((byMidi > 0 || codeByMidi) && midi !== 'here')
    findings.push({
      level: 'warning',
      where: 'inputs.midi',
      at: { view: 'inputs' },
      what: `${byMidi ? `${byMidi} ${byMidi === 1 ? 'binding wants' : 'bindings want'} MIDI` : 'Time comes by MIDI'}, and no MIDI device is here. Plug it in, and press Connect in Inputs.`,
    });
  if (inputs.sound.from === 'device' && sound !== 'here')
    findings.push({
      level: 'warning',
      where: 'inputs.sound',
      at: { view: 'inputs' },
      what: 'The show listens to a microphone or line, and none is heard. Plug it in, and allow it in Inputs.',
    });
  if (inputs.code === 'sound' && soundRate !== null && soundRate < 44100)
    findings.push({
      level: 'warning',
      where: 'inputs.code',
      at: { view: 'inputs' },
      what: `Time code in sound needs 44 100 samples a second, and this machine hears ${soundRate}. Set its input to 48 000.`,
    });
  return findings;
}

/** Whether a storage will soon take nothing any more. */
export const isNearlyFull = ({ used, quota }: { used: number; quota: number }): boolean =>
  quota > 0 && used > fullShare * quota;

function keeping({ storage, power, staysAwake }: MachineFacts) {
  const findings: PreflightFinding[] = [];
  if (storage && isNearlyFull(storage))
    findings.push({
      level: 'warning',
      where: 'Storage',
      at: { view: 'shows' },
      what: `The storage of this browser is nearly full: ${megabytes(storage.used)} of ${megabytes(storage.quota)}. Export shows and delete those that are not needed; exporting works also when it is full.`,
    });
  if (storage && !storage.isKept)
    findings.push({
      level: 'note',
      where: 'Storage',
      mend: { do: 'keep-storage' },
      what: 'This browser may clear what it stores when the disk runs full. Ask it to keep the shows, or export them.',
    });
  if (power && !power.isCharging)
    findings.push({
      level: 'warning',
      where: 'This machine',
      what: `This machine runs on its battery (${Math.round(100 * power.share)} %), and saves power by drawing slower. Plug it in.`,
    });
  if (staysAwake === false)
    findings.push({
      level: 'warning',
      where: 'This machine',
      what: 'This browser may not keep displays awake. Set the system so that they never go to sleep, or they go dark in the middle of the show.',
    });
  return findings;
}

/** What a machine lacks for a show. */
export function machineFindings(show: Show, catalogue: Catalogue, facts: MachineFacts): PreflightFinding[] {
  return [
    ...drawing(facts, show, catalogue),
    ...outputs(facts, show),
    ...devices(facts, show),
    ...keeping(facts),
  ];
}
