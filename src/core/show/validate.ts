import { kindOf } from '../kind/kind';
import type { Catalogue } from '../kind/kind';
import { partsOf } from '../kind/controls';
import { portTakes, reaches } from '../patch/wiring';
import validateShape from './validator.generated';
import { plainValue } from '../run/node-run';
import { triggersOf } from './motions';
import { homeInputs, structuredCloneOf } from './create';
import { asideOf, defaultReturn } from './return-settings';
import { showFormat, showVersion, type Scene, type Show } from './types';

/** Something a check found. */
export interface Finding {
  level: 'error' | 'warning';
  /** Place in the document, for example `scenes[0].nodes.n3.controls.size`. */
  where: string;
  what: string;
}

/** A file that cannot be opened. Its message says where it is wrong and what to do; nothing was changed. */
export class ShowFileError extends Error {
  override name = 'ShowFileError';
  constructor(readonly findings: readonly Finding[]) {
    const [first] = findings;
    const more = findings.length > 1 ? ` (and ${findings.length - 1} more)` : '';
    super(`${first.where ? `At ${first.where}: ` : ''}${first.what}${more}`);
  }
}

interface SchemaFault {
  instancePath: string;
  keyword: string;
  message?: string;
  params: Record<string, unknown>;
}

function readablePath(pointer: string): string {
  return pointer
    .split('/')
    .slice(1)
    .map((part) => (/^\d+$/.test(part) ? `[${part}]` : `.${part.replace(/~1/g, '/').replace(/~0/g, '~')}`))
    .join('')
    .replace(/^\./, '');
}

function sentence(fault: SchemaFault): string {
  switch (fault.keyword) {
    case 'required':
      return `${String(fault.params.missingProperty)} is missing.`;
    case 'additionalProperties':
      return `${String(fault.params.additionalProperty)} is not known here. Remove it, or open the file with a newer Pyrvel.`;
    case 'enum':
      return `Must be one of ${(fault.params.allowedValues as unknown[]).join(', ')}.`;
    case 'const':
      return `Must be ${JSON.stringify(fault.params.allowedValue)}.`;
    case 'discriminator':
      return `Its type must be one that this Pyrvel knows. Remove it, or open the file with a newer Pyrvel.`;
    default:
      return `This ${fault.message ?? 'is wrong'}.`;
  }
}

/** Findings of the form of the document alone: the JSON Schema. */
export function checkForm(data: unknown): Finding[] {
  if (validateShape(data)) return [];
  const faults = ((validateShape as { errors?: SchemaFault[] | null }).errors ?? []).filter(
    (f) => f.keyword !== 'anyOf',
  );
  return faults
    .slice(0, 20)
    .map((fault) => ({ level: 'error', where: readablePath(fault.instancePath), what: sentence(fault) }));
}

function checkWires(scene: Scene, catalogue: Catalogue, at: string): Finding[] {
  const findings: Finding[] = [];
  for (const [id, wire] of Object.entries(scene.wires)) {
    const where = `${at}.wires.${id}`;
    const from = scene.nodes[wire.from.node];
    const to = scene.nodes[wire.to.node];
    if (!from || !to) {
      const missing = from ? wire.to.node : wire.from.node;
      findings.push({
        level: 'error',
        where,
        what: `There is no node ${missing} in this scene. Remove the wire.`,
      });
      continue;
    }
    const fromKind = kindOf(catalogue, from);
    const toKind = kindOf(catalogue, to);
    if (!fromKind || !toKind) continue;
    const accepted = portTakes(toKind, wire.to.port);
    if (!accepted)
      findings.push({
        level: 'warning',
        where,
        what: `${to.name} has no port ${wire.to.port}; the wire does nothing.`,
      });
    else if (!accepted.includes(fromKind.output)) {
      findings.push({
        level: 'warning',
        where,
        what: `${from.name} gives ${fromKind.output}, and ${to.name} takes ${accepted.join(' or ')} there.`,
      });
    }
    for (const aside of asideOf(wire.back)) {
      if (!scene.nodes[aside])
        findings.push({
          level: 'error',
          where: `${where}.back`,
          what: `There is no node ${aside} in this scene.`,
        });
    }
  }
  return findings;
}

function checkControls(scene: Scene, catalogue: Catalogue, at: string): Finding[] {
  const findings: Finding[] = [];
  for (const [id, node] of Object.entries(scene.nodes)) {
    const where = `${at}.nodes.${id}`;
    if (node.id !== id)
      findings.push({ level: 'error', where, what: `Its id is ${node.id}, but it stands under ${id}.` });
    for (const trigger of triggersOf(Object.values(node.motions).flat())) {
      if (!scene.nodes[trigger])
        findings.push({
          level: 'error',
          where: `${where}.motions`,
          what: `There is no node ${trigger} in this scene.`,
        });
    }
    const kind = kindOf(catalogue, node);
    if (!kind) {
      findings.push({
        level: 'warning',
        where,
        what: `Nothing is known of the kind ${node.kind}; ${node.name} is kept as a placeholder.`,
      });
      continue;
    }
    for (const [name, value] of Object.entries(node.controls)) {
      const spec = Object.hasOwn(kind.controls, name) ? kind.controls[name] : null;
      if (!spec) {
        findings.push({
          level: 'warning',
          where: `${where}.controls.${name}`,
          what: `${kind.label} has no control ${name}; the value is kept.`,
        });
      } else {
        const plain = plainValue(spec, value);
        const stands = partsOf(spec).length === 1 ? [Number(value)] : value;
        if (JSON.stringify(plain) !== JSON.stringify(stands)) {
          findings.push({
            level: 'warning',
            where: `${where}.controls.${name}`,
            what: `${JSON.stringify(value)} does not fit; its home value is used.`,
          });
        }
      }
    }
  }
  return findings;
}

/** Everything that can be said of a show without running it. */
export function checkShow(data: unknown, catalogue: Catalogue): Finding[] {
  const form = checkForm(data);
  if (form.length) return form;
  const show = data as Show;
  const findings: Finding[] = [];
  const ids = new Set<string>();
  show.scenes.forEach((scene, k) => {
    const at = `scenes[${k}]`;
    if (ids.has(scene.id))
      findings.push({ level: 'error', where: `${at}.id`, what: `Two scenes have the id ${scene.id}.` });
    ids.add(scene.id);
    findings.push(...checkWires(scene, catalogue, at), ...checkControls(scene, catalogue, at));
    const outs = Object.values(scene.nodes).filter((node) => {
      const kind = kindOf(catalogue, node);
      return kind?.output === 'image' && kind.isSceneOut;
    });
    if (outs.length !== 1) {
      findings.push({
        level: 'warning',
        where: at,
        what: outs.length
          ? 'It has more than one Scene Out; the first counts.'
          : 'It has no Scene Out, so its picture is black.',
      });
    } else if (!Object.values(scene.wires).some((wire) => wire.to.node === outs[0].id)) {
      findings.push({
        level: 'warning',
        where: `${at}.nodes.${outs[0].id}`,
        what: 'Nothing is wired into Scene Out, so its picture is black.',
      });
    }
  });
  return findings;
}

/**
 * Gives return wires of older files what they do not say, and opens circles that no return wire opens, as a file changed
 * by hand may hold them.
 */
function completeWires(scene: Scene): void {
  const kept: Scene = { ...scene, wires: {} };
  for (const [id, wire] of Object.entries(scene.wires)) {
    if (wire.back) wire.back = { ...defaultReturn(), ...wire.back };
    else if (reaches(kept, wire.to.node, wire.from.node)) wire.back = defaultReturn();
    kept.wires[id] = wire;
  }
}

/** Brings the head of an older file into the form of today. What has another form than it ever had stays, to be found. */
function renewForm(data: { scenes?: unknown; inputs?: unknown }): void {
  data.inputs ??= structuredCloneOf(homeInputs);
  if (!Array.isArray(data.scenes)) return;
  for (const scene of data.scenes as ({ loopBeats?: unknown; loop?: unknown } | null)[]) {
    if (typeof scene?.loopBeats !== 'number' || scene.loop !== undefined) continue;
    scene.loop = { length: scene.loopBeats, unit: 'beats', lock: false };
    delete scene.loopBeats;
  }
}

function migrateControls(show: Show, catalogue: Catalogue): void {
  for (const scene of show.scenes) {
    for (const node of Object.values(scene.nodes)) {
      const migrate = kindOf(catalogue, node)?.migrate;
      if (migrate) node.controls = migrate(node.controls) as typeof node.controls;
    }
  }
}

/**
 * Reads a show file. Throws ShowFileError if it cannot be opened; otherwise gives the show and what is worth saying
 * about it. Nodes of unknown kinds stay, with all their data.
 */
export function readShow(text: string, catalogue: Catalogue): { show: Show; findings: Finding[] } {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    throw new ShowFileError([
      { level: 'error', where: '', what: `This is not a show file: ${placeOfFault(text, error as Error)}` },
    ]);
  }
  const header = data as { format?: unknown; version?: unknown } | null;
  if (typeof header !== 'object' || header === null || header.format !== showFormat) {
    throw new ShowFileError([
      {
        level: 'error',
        where: '',
        what: 'This is not a show file of Pyrvel. Choose a file that ends in .pyrvel.json.',
      },
    ]);
  }
  if (typeof header.version === 'number' && header.version > showVersion) {
    throw new ShowFileError([
      {
        level: 'error',
        where: 'version',
        what: `The file is of version ${header.version}, this Pyrvel reads up to ${showVersion}. Use a newer one.`,
      },
    ]);
  }
  renewForm(data as object);
  const findings = checkShow(data, catalogue);
  const errors = findings.filter((finding) => finding.level === 'error');
  if (errors.length) throw new ShowFileError(errors);
  const show = data as Show;
  show.files ??= {};
  migrateControls(show, catalogue);
  show.scenes.forEach(completeWires);
  return { show, findings };
}

function placeOfFault(text: string, error: Error): string {
  const at = /position (\d+)/.exec(error.message);
  if (!at) return 'it ends too early or is not JSON. Export it again.';
  const before = text.slice(0, Number(at[1])).split('\n');
  return `the text breaks off in line ${before.length}, column ${before[before.length - 1].length + 1}. Export it again.`;
}

/** A show as the text of its file. */
export const writeShow = (show: Show): string => `${JSON.stringify(show, null, 1)}\n`;
