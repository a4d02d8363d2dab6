import type { Module, Show } from '../document/types';
import type { Catalogue } from '../kind/kind';
import { endsOf, moduleControlSpec, moduleIdOf } from '../module/module-kind';
import type { Finding } from './finding';

/** Modules that lie in a module, in those, and so on. */
export function modulesInside(modules: Show['modules'], id: string): Set<string> {
  const found = new Set<string>();
  const open = [id];
  while (open.length) {
    const module = modules[open.pop()!] as Module | undefined;
    for (const { kind } of Object.values(module?.nodes ?? {})) {
      const inner = moduleIdOf(kind);
      if (inner === null || found.has(inner)) continue;
      found.add(inner);
      open.push(inner);
    }
  }
  return found;
}

/** What is wrong with a module beside its nodes and wires. */
export function checkModule(show: Show, module: Module, catalogue: Catalogue, at: string): Finding[] {
  const findings: Finding[] = [];
  if (modulesInside(show.modules, module.id).has(module.id))
    findings.push({ level: 'error', where: at, what: `${module.name} lies in itself. Remove it inside.` });
  if (endsOf(module, catalogue).out.length === 0)
    findings.push({
      level: 'warning',
      where: at,
      what: `${module.name} has no Module Out: it gives nothing.`,
    });
  const ids = new Set<string>();
  module.controls.forEach((control, k) => {
    const where = `${at}.controls[${k}]`;
    if (ids.has(control.id))
      findings.push({ level: 'error', where, what: `Two controls have the id ${control.id}.` });
    ids.add(control.id);
    if (!moduleControlSpec(module, control, catalogue))
      findings.push({ level: 'warning', where, what: `${control.name} sets a control that is not there.` });
  });
  return findings;
}
