import clsx from 'clsx';
import { useState, type FormEvent } from 'react';
import type { Following } from '../../core/machines/link';
import { takeTheLead } from './main-machine';
import { followMain, machinesStore, stopFollowing } from './machines-store';

const phaseWords: Readonly<Record<Following['phase'], string>> = {
  joining: 'Looking for',
  following: 'Follows',
  leading: 'Has taken over from',
};

const phaseHelp: Readonly<Record<Following['phase'], string>> = {
  joining: 'This machine performs by what it has until the other one is found.',
  following: 'What is done here is done there. When it is gone, this machine performs within a second.',
  leading: 'This machine performs. The other one follows it once it is back.',
};

/** Where this machine becomes the spare of another one, and stops being it. */
export function Spare() {
  const following = machinesStore((s) => s.network?.following ?? null);
  const [isBusy, setBusy] = useState(false);
  const wait = (work: Promise<void>): void => {
    setBusy(true);
    void work.finally(() => setBusy(false));
  };
  const follow = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    wait(followMain(String(data.get('address')), String(data.get('code'))));
  };
  return (
    <section
      aria-label="Spare"
      className={clsx(
        'flex flex-col gap-3',
        following ? 'mb-5 border-b edge pb-5' : 'mt-5 border-t edge pt-4',
      )}
    >
      <h3 className="font-semibold">Spare</h3>
      {following ? (
        <>
          <p data-testid="following" data-phase={following.phase}>
            {phaseWords[following.phase]} <span className="figures break-all">{following.address}</span>
          </p>
          <p className="quiet">{phaseHelp[following.phase]}</p>
          {following.phase === 'following' && (
            <button
              type="button"
              className="tool h-8 justify-center border edge"
              title="This machine performs from now on, and the other one follows it"
              onClick={takeTheLead}
            >
              Take over now
            </button>
          )}
          <button
            type="button"
            className="tool h-8 justify-center border edge"
            title="This machine performs by itself, and the two go their own ways"
            disabled={isBusy}
            onClick={() => wait(stopFollowing())}
          >
            Stop following
          </button>
        </>
      ) : (
        <form className="flex flex-col gap-2" onSubmit={follow}>
          <p className="quiet">
            This machine can be the spare of another one with Pyrvel: it follows in everything, and takes over
            when that one is gone. Type what stands in Machines there. The network is opened here too.
          </p>
          <input
            name="address"
            required
            className="input input-sm h-8 w-full"
            aria-label="Address of the main machine"
            placeholder="https://192.168.1.20:4171"
            autoComplete="off"
            spellCheck={false}
          />
          <div className="flex gap-2">
            <input
              name="code"
              required
              className="input input-sm h-8 w-0 grow"
              aria-label="Code for the spare"
              placeholder="Code for the spare"
              inputMode="numeric"
              pattern="\d{3} ?\d{3}"
              autoComplete="off"
            />
            <button type="submit" className="tool h-8 border edge" disabled={isBusy}>
              Follow
            </button>
          </div>
        </form>
      )}
    </section>
  );
}
