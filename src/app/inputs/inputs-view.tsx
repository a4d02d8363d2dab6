import { useEffect } from 'react';
import { MidiCard } from './midi-card';
import { GamepadCard, KeysCard, OscCard, PointerCard } from './small-cards';
import { showHearing } from './keep-inputs';
import { SoundCard } from './sound-card';
import { TimeCodeCard } from './time-code-card';

/** Everything that drives the show from outside, each with its live value and what stands in for it. */
export function InputsView() {
  useEffect(() => {
    showHearing(true);
    return () => showHearing(false);
  }, []);
  return (
    <main
      className="grid h-full grid-cols-4 grid-rows-[minmax(13rem,1fr)_minmax(17rem,1.2fr)_minmax(12rem,0.9fr)] gap-2 overflow-y-auto p-2"
      data-testid="inputs"
    >
      <SoundCard className="col-span-4" />
      <MidiCard className="col-span-3" />
      <OscCard />
      <KeysCard />
      <div className="col-span-3 grid min-h-0 grid-cols-[1.2fr_1.6fr_1fr] gap-2">
        <PointerCard />
        <GamepadCard />
        <TimeCodeCard />
      </div>
    </main>
  );
}
