import { comesAs, isPassRole, type PassRole } from '../../core/machines/roles';
import { machineId, playerName } from './link';

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

export const forgetPass = (as: Guest): void => localStorage.removeItem(passKey(as));
