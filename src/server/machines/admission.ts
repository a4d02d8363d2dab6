import { ownClock } from '../../core/own-clock';
import { linkVersion, type Handshake, type MachineCard } from '../../core/machines/link';
import { comesAs, deskOf, type DeskRole } from '../../core/machines/roles';
import { AccessError, type Access } from './access';
import { isHandshake } from './message-check';

const mostOthers = 64;

/** From where a machine comes. */
export interface Origin {
  /** From this very machine. */
  isLocal: boolean;
  address: string;
}

export interface Admitted {
  role: Handshake['role'];
  desk: DeskRole | null;
  card: MachineCard;
}

/** Lets a machine in by what it says of itself. `others`: how many are there beside the main one. Throws a sentence for who is not let in. */
export async function admit(
  hello: unknown,
  { isLocal, address }: Origin,
  access: Pick<Access, 'check'>,
  others: number,
): Promise<Admitted> {
  if (!isHandshake(hello)) throw new Error('This is no machine of Pyrvel.');
  const { version, role, machine, name, token } = hello;
  if (version !== linkVersion)
    throw new Error('This page is of another version than the main machine. Load it again.');
  if (role === 'main' && !isLocal)
    throw new Error('Only the machine of the server itself can be the main one.');
  if (role !== 'main' && others >= mostOthers)
    throw new Error(`${mostOthers} machines are there already. Close some of them.`);
  let desk: DeskRole | null = null;
  // A window of this very machine needs no code to show what is shown here anyway.
  if (role !== 'main' && !(role === 'player' && isLocal)) {
    const pass = await access.check(token);
    if (pass.machine !== machine) throw new AccessError(401, 'This machine has to be let in again.');
    if (comesAs(pass.role) !== role)
      throw new AccessError(401, 'This code was for another kind of machine. Type the one for this.');
    desk = deskOf(pass.role);
  }
  const card: MachineCard = {
    ...{ machine, name, role, desk, address },
    since: ownClock(),
    clock: null,
    asked: 0,
    lost: 0,
    framesPerSecond: null,
    lacks: '',
    where: '',
  };
  return { role, desk, card };
}
