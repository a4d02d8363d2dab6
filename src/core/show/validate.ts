import { parseLanes } from '../formula/lanes';
import { formulaName, momentNames } from '../formula/names';
import { FormulaError, parseFormula } from '../formula/parse';
import { isFormulaVariable, limit, partsOf, type ControlSpec } from '../kind/controls';
import { kindOf, type Catalogue, type Kind } from '../kind/kind';
import { misfit } from '../patch/plan';
import { portOf } from '../patch/wiring';
import { plainValue } from '../run/node-run';
import { checkPlay } from './check-play';
import { checkWall } from './check-wall';
import type { Finding } from './finding';
import { checkModule } from './check-module';
import { catalogueWith } from '../module/show-catalogue';
import { migrate } from './migrations';
import { triggersOf } from '../document/motions';
import { openCycles, wiresThatCloseNothing } from './cycles';
import { asideOf } from '../document/return-settings';
import { shippedFiles } from './shipped';
import { showFormat, showVersion, type ControlValue, type Patch, type Show } from '../document/types';
import validateShape from '../document/validator.generated';

export type { Finding } from './finding';

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
    case 'anyOf':
      return 'This has none of the forms that are known here.';
    case 'pattern':
      return "These letters and signs can't be used here. Ids begin with a letter and hold letters, digits, - and _; names have 1 to 120 characters.";
    case 'discriminator':
      return `Its type must be one that this Pyrvel knows. Remove it, or open the file with a newer Pyrvel.`;
    default:
      return `This ${fault.message ?? 'is wrong'}.`;
  }
}

/** Findings of the form of the document alone: the JSON Schema. */
export function checkForm(data: unknown): Finding[] {
  if (validateShape(data)) return [];
  const faults = (validateShape as { errors?: SchemaFault[] | null }).errors ?? [];
  return closestFaults(faults)
    .slice(0, 20)
    .map((fault) => ({ level: 'error', where: readablePath(fault.instancePath), what: sentence(fault) }));
}

/**
 * Where a value may have one of several forms, the validator finds fault with it in the eyes of each. What helps is the
 * one that came furthest into the value; of a value that fits none at all, that it does.
 */
function closestFaults(faults: readonly SchemaFault[]): SchemaFault[] {
  const kept: SchemaFault[] = [];
  // The choice itself is named after all that was found under it.
  for (const fault of faults) {
    if (fault.keyword !== 'anyOf') {
      kept.push(fault);
      continue;
    }
    const under = kept.filter(({ instancePath }) => instancePath.startsWith(fault.instancePath));
    kept.length -= under.length;
    const closest = under.reduce((a, b) => (b.instancePath.length > a.instancePath.length ? b : a), fault);
    kept.push(closest);
  }
  return kept;
}

const missingNode = (id: string): string => `There is no node ${id} here.`;

function checkWires(scene: Patch, catalogue: Catalogue, at: string): Finding[] {
  const findings: Finding[] = [];
  const say = (level: Finding['level'], where: string, what: string): void =>
    void findings.push({ level, where, what });
  const has = (id: string): boolean => Object.hasOwn(scene.nodes, id);
  for (const [id, wire] of Object.entries(scene.wires)) {
    const where = `${at}.wires.${id}`;
    if (wire.id !== id) say('error', where, `Its id is ${wire.id}, but it stands under ${id}.`);
    const missing = [wire.from.node, wire.to.node].find((node) => !has(node));
    if (missing !== undefined) {
      say('error', where, `${missingNode(missing)} Remove the wire.`);
      continue;
    }
    const wrong = misfit(scene, catalogue, wire);
    if (wrong) say('warning', where, wrong);
    for (const aside of asideOf(wire.back))
      if (!has(aside)) say('error', `${where}.back`, missingNode(aside));
  }
  if (findings.every(({ level }) => level === 'warning')) {
    for (const wire of wiresThatCloseNothing(scene))
      say(
        'warning',
        `${at}.wires.${wire.id}.back`,
        `It is a return wire, but nothing leads from ${scene.nodes[wire.to.node].name} back to ${scene.nodes[wire.from.node].name}: it only delays.`,
      );
  }
  return findings;
}

/** Whether a file id is empty, of a file that ships, or of one that the show lists. */
const hasFile = (show: Show, id: string): boolean =>
  id === '' || Object.hasOwn(show.files, id) || shippedFiles.some((file) => file.id === id);

function checkInputs(show: Show): Finding[] {
  const { sound, midi } = show.inputs;
  return Object.entries({ 'sound.file': sound.file, 'midi.file': midi.file })
    .filter(([, id]) => !hasFile(show, id))
    .map(([place, id]) => ({
      level: 'warning',
      where: `inputs.${place}`,
      what: `The show has no file ${id}. Choose the file again.`,
    }));
}

function checkControls(show: Show, scene: Patch, catalogue: Catalogue, at: string): Finding[] {
  const findings: Finding[] = [];
  const say = (level: Finding['level'], where: string, what: string): void =>
    void findings.push({ level, where, what });
  const formulas = new FormulaCheck(scene);
  for (const [id, node] of Object.entries(scene.nodes)) {
    const where = `${at}.nodes.${id}`;
    if (node.id !== id) say('error', where, `Its id is ${node.id}, but it stands under ${id}.`);
    for (const trigger of triggersOf(Object.values(node.motions).flat()))
      if (!Object.hasOwn(scene.nodes, trigger)) say('error', `${where}.motions`, missingNode(trigger));
    const kind = kindOf(catalogue, node);
    if (!kind) {
      say('warning', where, `Unknown node kind "${node.kind}"; ${node.name} is kept as a placeholder.`);
      continue;
    }
    for (const [part, text] of Object.entries(node.formulas)) {
      const fault =
        portOf(kind, part)?.type === 'control' ? formulas.ofPart(text) : 'There is no such control.';
      if (fault) say('warning', `${where}.formulas.${part}`, fault);
    }
    for (const [name, value] of Object.entries(node.controls)) {
      const here = `${where}.controls.${name}`;
      const spec = Object.hasOwn(kind.controls, name) ? kind.controls[name] : null;
      if (!spec) {
        say('warning', here, `${kind.label} has no control ${name}; the value is kept.`);
        continue;
      }
      const fault =
        faultOfValue(spec, value) ??
        formulas.ofControl(kind, spec, value) ??
        (spec.type === 'file' && !hasFile(show, String(value))
          ? `The show has no file ${String(value)}. Choose the file again.`
          : null);
      if (fault) say('warning', here, fault);
    }
  }
  return findings;
}

/** What is wrong with the plain value of a control: another form, or beyond its limits. */
function faultOfValue(spec: ControlSpec, value: ControlValue): string | null {
  const plain = plainValue(spec, value);
  const isSingle = partsOf(spec).length === 1;
  const same = isSingle
    ? (plain as number[])[0] === Number(value)
    : plain === value || JSON.stringify(plain) === JSON.stringify(value);
  if (!same) return `${JSON.stringify(value)} does not fit; its home value is used.`;
  if (!isSingle && !partsOf(spec).length) return null;
  const beyond = (plain as number[]).some((number) => limit(spec, number) !== number);
  if (!beyond) return null;
  const held = (plain as number[]).map((number) => limit(spec, number));
  return `${JSON.stringify(value)} is beyond its limits; ${held.join(', ')} is used.`;
}

/** Reads formulas as the scene would, knowing which names it has. */
class FormulaCheck {
  private readonly names: ReadonlySet<string>;

  constructor(scene: Patch) {
    this.names = new Set(Object.values(scene.nodes).map((node) => formulaName(node.name)));
  }

  private isKnown(name: string): boolean {
    return (momentNames as readonly string[]).includes(name) || this.names.has(name.split('.')[0]);
  }

  /** What is wrong with the formula of a part of a control; null if nothing is. */
  ofPart(text: string): string | null {
    return this.fault(() => parseFormula(text, (name) => name === 'value' || this.isKnown(name), this.names));
  }

  /** The same of a control that is a formula. */
  ofControl(kind: Kind, spec: ControlSpec, value: ControlValue): string | null {
    if (spec.type !== 'formula' || typeof value !== 'string') return null;
    const isVariable = (name: string): boolean => isFormulaVariable(spec, name);
    // Formulas of images become part of a shader, which knows their own variables only.
    if (kind.output === 'image') return this.fault(() => parseFormula(value, isVariable, spec.variables));
    return this.fault(() => parseLanes(value, (name) => isVariable(name) || this.isKnown(name), this.names));
  }

  private fault(read: () => unknown): string | null {
    try {
      read();
      return null;
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      return `The formula can't be read: ${error.message} (at ${error.position + 1})`;
    }
  }
}

/** Everything that can be said of a show without running it. */
export function checkShow(data: unknown, shipped: Catalogue): Finding[] {
  const form = checkForm(data);
  if (form.length) return form;
  const show = data as Show;
  const catalogue = catalogueWith(shipped, show.modules);
  const findings = [...checkInputs(show), ...checkWall(show), ...checkPlay(show, catalogue)];
  for (const [id, module] of Object.entries(show.modules)) {
    const at = `modules.${id}`;
    if (module.id !== id)
      findings.push({
        level: 'error',
        where: at,
        what: `Its id is ${module.id}, but it stands under ${id}.`,
      });
    findings.push(
      ...checkWires(module, catalogue, at),
      ...checkControls(show, module, catalogue, at),
      ...checkModule(show, module, catalogue, at),
    );
  }
  const ids = new Set<string>();
  show.scenes.forEach((scene, k) => {
    const at = `scenes[${k}]`;
    if (ids.has(scene.id))
      findings.push({ level: 'error', where: `${at}.id`, what: `Two scenes have the id ${scene.id}.` });
    ids.add(scene.id);
    findings.push(...checkWires(scene, catalogue, at), ...checkControls(show, scene, catalogue, at));
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
        what: `This file is version ${header.version}; this Pyrvel reads up to version ${showVersion}. Please update.`,
      },
    ]);
  }
  migrate(data as Record<string, unknown>, catalogue);
  const findings = checkShow(data, catalogue);
  const errors = findings.filter((finding) => finding.level === 'error');
  if (errors.length) throw new ShowFileError(errors);
  const show = data as Show;
  show.scenes.forEach((scene, k) => {
    for (const wire of openCycles(scene))
      findings.push({
        level: 'warning',
        where: `scenes[${k}].wires.${wire.id}`,
        what: 'It closes a cycle that no return wire opens; it was made a return wire.',
      });
  });
  for (const module of Object.values(show.modules)) openCycles(module);
  return { show, findings };
}

function placeOfFault(text: string, error: Error): string {
  const at = /position (\d+)/.exec(error.message);
  // A text that ends between two values is told without a position.
  const isTorn = /end of (JSON )?input|end of data/i.test(error.message);
  if (!at && !isTorn) return 'it is not JSON. Export it again.';
  const before = text.slice(0, at ? Number(at[1]) : undefined).split('\n');
  return `the text breaks off in line ${before.length}, column ${before[before.length - 1].length + 1}. Export it again.`;
}

/** A show as the text of its file. */
export const writeShow = (show: Show): string => `${JSON.stringify(show, null, 1)}\n`;
