import { showVersion } from '../document/types';
import type { Catalogue } from '../kind/kind';
import { makeShow } from './create';
import type { ModulePack } from './module-pack';
import { readShow, ShowFileError } from './validate';

const moduleFormat = 'pyrvel.module' as const;

/** The text of a module file; `bytes`: its files, in Base64 (RFC 4648). */
export const writeModule = (pack: ModulePack, bytes: Readonly<Record<string, string>> = {}): string =>
  `${JSON.stringify({ format: moduleFormat, version: showVersion, ...pack, bytes }, null, 1)}\n`;

/** Whether a text is a module file, as far as its head tells. */
export const isModuleFile = (text: string): boolean => /^\s*\{\s*"format":\s*"pyrvel\.module"/.test(text);

/** Reads a module file, also one of an older version. Throws ShowFileError. */
export function readModule(
  text: string,
  catalogue: Catalogue,
): { pack: ModulePack; bytes: Record<string, string> } {
  const refuse = (what: string): never => {
    throw new ShowFileError([{ level: 'error', where: '', what }]);
  };
  let data: Record<string, unknown>;
  try {
    data = JSON.parse(text) as Record<string, unknown>;
  } catch {
    return refuse('This is not a module file: the text breaks off or is damaged. Export it again.');
  }
  if (typeof data !== 'object' || data === null || data.format !== moduleFormat)
    return refuse('This is not a module file of Pyrvel. Choose a file that ends in .pyrvel-module.json.');
  const { main, modules, files, version } = data;
  const around = { ...makeShow(catalogue, 'Module'), version, modules, files: files ?? {} };
  const { show } = readShow(JSON.stringify(around), catalogue);
  if (typeof main !== 'string' || !Object.hasOwn(show.modules, main))
    return refuse('The file does not say which module it is about. Export it again.');
  const bytes: Record<string, string> = {};
  for (const [id, base64] of Object.entries((data.bytes ?? {}) as Record<string, unknown>))
    if (typeof base64 === 'string') bytes[id] = base64;
  return { pack: { main, modules: show.modules, files: show.files }, bytes };
}
