import clsx from 'clsx';
import { useEffect, useState } from 'react';
import { renderSVG } from 'uqr';
import { passRoles, type DeskRole, type PassRole } from '../../core/machines/roles';
import { SelectField } from '../parts/field';
import { lookAtNetwork, machinesStore, openNetwork, renewCodes } from './machines-store';

/** What each role is called, and what it may do. */
export const roleWords: Readonly<Record<DeskRole, readonly [name: string, about: string]>> = {
  look: ['Look', 'Sees the program and where the desk and the cues stand'],
  desk: ['Desk', 'Plays the desk, snapshots and cues, and panic'],
  all: ['All', 'Performs: scenes, takes, blackout, masters, tempo as well'],
};

const codeWords: Readonly<Record<PassRole, readonly [name: string, about: string]>> = {
  ...roleWords,
  player: ['Player', 'Another computer that shows a screen of the wall, at /player'],
  spare: ['Spare', 'A second main machine, which follows and takes over when this one is gone'],
};

/** How others come to this machine: whether they can, by which address, and the codes that let them in. */
export function Invitation() {
  const { network, fault } = machinesStore();
  const [address, setAddress] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  useEffect(() => void lookAtNetwork(), []);
  const wait = (work: Promise<void>): void => {
    setBusy(true);
    void work.finally(() => setBusy(false));
  };
  const isOpen = network?.isOpen === true;
  const addresses = network?.addresses ?? [];
  const shown = addresses.find((one) => one === address) ?? addresses[0];
  const remote = shown && `${shown}/remote`;
  return (
    <section aria-label="Network" className="flex flex-col gap-3">
      <label className="flex cursor-pointer items-center gap-2">
        <input
          type="checkbox"
          role="switch"
          className="toggle toggle-primary toggle-sm"
          checked={isOpen}
          disabled={isBusy || network === null}
          onChange={(event) => wait(openNetwork(event.target.checked))}
        />
        <span className="font-semibold">Open to the network</span>
      </label>
      {(fault || network?.fault) && (
        <p role="alert" className="rounded border-l-4 border-l-error bg-base-300 px-2 py-1">
          {fault || network?.fault}
        </p>
      )}
      {!isOpen && (
        <p className="quiet">
          Nobody but this machine is heard. Open it, and phones, tablets and other computers of the stage
          network can come as remote desks, with a code.
        </p>
      )}
      {isOpen && !remote && (
        <p className="quiet">This machine has no network yet. Plug in a cable or join a network.</p>
      )}
      {remote && (
        <>
          <img
            src={`data:image/svg+xml,${encodeURIComponent(renderSVG(remote, { border: 2 }))}`}
            alt={`QR code of ${remote}`}
            className="w-44 self-center rounded bg-white"
          />
          {addresses.length > 1 ? (
            <SelectField
              label="Address"
              value={shown}
              options={addresses.map((one) => [one, `${one}/remote`] as const)}
              onChange={setAddress}
            />
          ) : (
            <p className="figures text-center break-all select-text" data-testid="remote-address">
              {remote}
            </p>
          )}
          <p className="quiet text-2xs">
            The browser asks once whether it may trust this machine: its certificate is its own. Then type one
            of these codes.
          </p>
          <dl className="flex flex-col gap-1">
            {passRoles.map((role) => (
              <div key={role} className="flex items-center gap-3 rounded border edge bg-base-100 px-2 py-1.5">
                <dt className="min-w-0 grow">
                  <span className={clsx('block font-semibold', role === 'all' && 'text-primary')}>
                    {codeWords[role][0]}
                  </span>
                  <span className="quiet block text-2xs">{codeWords[role][1]}</span>
                </dt>
                <dd className="figures text-xl tracking-wide whitespace-nowrap select-text" data-code={role}>
                  {network?.codes?.[role].replace(/(...)/, '$1 ')}
                </dd>
              </div>
            ))}
          </dl>
          <button
            type="button"
            className="tool h-8 justify-center border edge"
            title="Makes new codes; all remote desks have to type one again"
            disabled={isBusy}
            onClick={() => wait(renewCodes())}
          >
            New codes, and send all away
          </button>
        </>
      )}
    </section>
  );
}
