import { isMachineId } from '../../core/machines/link';
import { comesAs, isPassRole, type PassRole } from '../../core/machines/roles';
import { machineId, playerName, setMachineId } from './link';

type Guest = 'remote' | 'player';

/** Where a pass is kept: each player of this browser has its own. */
const passKey = (as: Guest): string => `pyrvel.pass${as}${as === 'player' ? `.${playerName()}` : ''}`;

/** What a machine was let in with. */
export interface KeptPass {
  token: string;
  role: PassRole;
}

/** Types a code of the main machine. Throws an error that says why it was not let in. */
export async function letIn(code: string, as: Guest): Promise<KeptPass> {
  const response = await fetch('/machines/enter', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ code, machine: machineId(as) }),
  }).catch(() => {
    throw new Error('The main machine does not answer. Is this one on its network?');
  });
  if (!response.ok) throw new Error(await response.text());
  const pass = (await response.json()) as KeptPass;
  if (comesAs(pass.role) !== as)
    throw new Error(
      as === 'player'
        ? 'This code is for another kind of machine. Type the one for players.'
        : 'This code is for another kind of machine. Type one of those for remote desks.',
    );
  localStorage.setItem(passKey(as), pass.token);
  return pass;
}

/** What this machine was let in with before; null: it has to type a code. The server checks it. */
export function keptPass(as: Guest): KeptPass | null {
  const token = localStorage.getItem(passKey(as));
  if (!token) return null;
  try {
    const [, payload] = token.split('.');
    const { role } = JSON.parse(atob(payload.replace(/-/g, '+').replace(/_/g, '/'))) as { role: unknown };
    return isPassRole(role) ? { token, role } : null;
  } catch {
    return null;
  }
}

/**
 * The same page at the spare, as an address that says who comes and with what it was let in: a browser keeps both for one machine only. They stand
 * behind the `#`, which is not sent.
 */
export function pageAt(address: string, as: Guest): string {
  const brought = new URLSearchParams({
    machine: machineId(as),
    pass: localStorage.getItem(passKey(as)) ?? '',
  });
  return `${address}${location.pathname}${location.search}#${brought.toString()}`;
}

/** Takes what such an address brings, and leaves it there no longer. */
export function takeBrought(as: Guest): void {
  const brought = new URLSearchParams(location.hash.slice(1));
  const [machine, pass] = [brought.get('machine'), brought.get('pass')];
  if (machine === null || pass === null) return;
  history.replaceState(null, '', location.pathname + location.search);
  if (!isMachineId(machine) || !/^[\w.-]{1,2000}$/.test(pass)) return;
  setMachineId(as, machine);
  localStorage.setItem(passKey(as), pass);
}

export const forgetPass = (as: Guest): void => localStorage.removeItem(passKey(as));
