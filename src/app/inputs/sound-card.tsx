import { useQuery } from '@tanstack/react-query';
import { AudioLines } from 'lucide-react';
import { useRef } from 'react';
import type { ShowInputs } from '../../core/document/types';
import { SelectField } from '../parts/field';
import { useAddFile } from '../data/use-add-file';
import { editShow, endGesture, useShow } from '../data/show-store';
import { ScrubNumber } from '../parts/scrub-number';
import { inputStore } from './input-store';
import { listSoundDevices } from './sound';
import { SoundMeter } from './sound-meter';
import { SourceCard } from './source-card';

const endings = ['.wav', '.mp3', '.ogg', '.oga', '.flac'];
const fromWords: Record<ShowInputs['sound']['from'], string> = {
  loop: 'Built-in loop',
  file: 'A file',
  device: 'A microphone or line',
};

const Level = () => inputStore((s) => (s.heard?.level ?? 0).toFixed(2));

/** The tempo that is heard, and a button that the show takes it by. */
function Tempo() {
  const bpm = inputStore((s) => s.heard?.bpm ?? null);
  const words = inputStore(({ heard }) =>
    typeof heard?.bpm === 'number'
      ? `${heard.bpm.toFixed(1)} bpm, ${Math.round(heard.confidence * 100)} % sure`
      : 'no tempo yet',
  );
  return (
    <>
      <span className="figures text-2xs" data-testid="heard-tempo">
        {words}
      </span>
      <button
        type="button"
        className="tool"
        disabled={bpm === null}
        title="Sets the tempo of the show to what is heard"
        onClick={() => bpm && editShow((show) => void (show.tempo.bpm = Math.round(bpm * 10) / 10))}
      >
        Use it
      </button>
    </>
  );
}

/** The sound that the show hears: where it comes from, what is heard in it, and whether the clock follows. */
export function SoundCard({ className }: { className?: string }) {
  const sound = useShow((show) => show.inputs.sound);
  const clock = useShow((show) => show.inputs.clock);
  const files = useShow((show) => show.files);
  const status = inputStore((s) => s.sound);
  const devices = useQuery({ queryKey: ['sound devices'], queryFn: listSoundDevices });
  const input = useRef<HTMLInputElement>(null);
  const set = (change: Partial<ShowInputs['sound']>, gesture: string | null = null): void => {
    editShow((show) => void Object.assign(show.inputs.sound, change), gesture);
  };
  const own = Object.entries(files).filter(
    ([id, { name }]) => id === sound.file || endings.some((end) => name.toLowerCase().endsWith(end)),
  );
  const { fault, take } = useAddFile((file) => set({ from: 'file', file }));
  const deviceOptions: [string, string][] = [
    ['', 'The usual one'],
    ...(devices.data ?? []).map(({ id, name }): [string, string] => [id, name]),
  ];
  if (!deviceOptions.some(([id]) => id === sound.device))
    deviceOptions.push([sound.device, 'A device that is not here']);
  return (
    <SourceCard
      name="Sound"
      icon={<AudioLines size={15} />}
      status={{ ...status, words: fromWords[sound.from] }}
      value={<Level />}
      className={className}
    >
      <div className="flex flex-wrap items-center gap-2">
        <SelectField
          label="Sound from"
          value={sound.from}
          options={Object.entries(fromWords)}
          onChange={(from) => set({ from: from as typeof sound.from })}
        />
        {sound.from === 'file' && (
          <>
            <SelectField
              label="Sound file"
              value={sound.file}
              options={[['', 'None yet'], ...own.map(([id, { name }]): [string, string] => [id, name])]}
              className="max-w-40"
              onChange={(file) => set({ file })}
            />
            <button type="button" className="tool" onClick={() => input.current!.click()}>
              Choose…
            </button>
          </>
        )}
        <input
          ref={input}
          type="file"
          accept={endings.join(',')}
          className="hidden"
          data-testid="sound-input"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            void take(file);
          }}
        />
        {sound.from === 'device' ? (
          <SelectField
            label="Sound device"
            value={sound.device}
            options={deviceOptions}
            className="max-w-48"
            onChange={(device) => set({ device })}
          />
        ) : (
          <label
            className="flex items-center gap-1.5"
            title="Sounds from this machine, in step with the picture"
          >
            <input
              type="checkbox"
              aria-label="Sound is heard"
              className="toggle toggle-xs toggle-primary"
              checked={sound.heard}
              onChange={(e) => set({ heard: e.target.checked })}
            />
            aloud
          </label>
        )}
        <span className="quiet">Gain</span>
        <ScrubNumber
          label="Sound gain"
          value={sound.gain}
          step={0.25}
          fine={0.05}
          digits={1}
          min={-60}
          max={60}
          unit="dB"
          className="w-16"
          onChange={(gain) => set({ gain }, 'sound gain')}
          onDone={endGesture}
        />
        <span className="grow" />
        <Tempo />
        <label className="flex items-center gap-1.5">
          <span className="quiet">Clock follows</span>
          <SelectField
            label="Clock follows"
            value={clock}
            options={[
              ['own', 'the desk'],
              ['sound', 'the sound'],
              ['midi', 'MIDI clock'],
            ]}
            onChange={(v) => editShow((show) => void (show.inputs.clock = v as typeof clock))}
          />
        </label>
      </div>
      {fault && (
        <p className="text-2xs text-error" role="alert">
          {fault}
        </p>
      )}
      <SoundMeter />
    </SourceCard>
  );
}
