import { useQuery } from '@tanstack/react-query';
import { AudioLines } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { ShowInputs } from '../../core/document/types';
import { SelectField } from '../parts/field';
import { useAddFile } from '../data/use-add-file';
import { editShow, endGesture, useShow } from '../data/show-store';
import { ScrubNumber } from '../parts/scrub-number';
import { inputStore } from './input-store';
import { listSoundDevices } from './sound';
import { SourceCard } from './source-card';

const endings = ['.wav', '.mp3', '.ogg', '.oga', '.flac'];
const fromWords: Record<ShowInputs['sound']['from'], string> = {
  loop: 'Built-in loop',
  file: 'A file',
  device: 'A microphone or line',
};

/** Bands as bars, lowest first, and a lamp for every start of a note. */
function Meter() {
  const heard = inputStore((s) => s.heard);
  const last = useRef(0);
  const [lit, setLit] = useState(false);
  const onsets = heard?.onsets ?? 0;
  useEffect(() => {
    if (onsets === last.current) return;
    last.current = onsets;
    setLit(true);
    const timer = setTimeout(() => setLit(false), 90);
    return () => clearTimeout(timer);
  }, [onsets]);
  const bands = heard?.bands ?? new Float32Array(32);
  return (
    <div
      className="flex min-h-0 grow items-end gap-[3px] rounded bg-base-100 p-2"
      role="img"
      aria-label="Bands of the sound"
    >
      {Array.from(bands, (value, k) => (
        <span
          key={k}
          className="min-h-[2px] grow rounded-t-sm bg-primary"
          style={{ height: `${Math.round(value * 100)}%`, opacity: 0.45 + 0.55 * value }}
          data-band={k}
          data-value={value.toFixed(3)}
        />
      ))}
      <span
        className="mb-0.5 ml-2 h-3 w-3 shrink-0 self-center rounded-full transition-colors"
        style={{ background: lit ? 'var(--color-primary)' : 'var(--color-base-300)' }}
        title="Lights at each start of a note"
      />
    </div>
  );
}

/** The sound that the show hears: where it comes from, what is heard in it, and whether the clock follows. */
export function SoundCard({ className }: { className?: string }) {
  const sound = useShow((show) => show.inputs.sound);
  const clock = useShow((show) => show.inputs.clock);
  const files = useShow((show) => show.files);
  const status = inputStore((s) => s.sound);
  const level = inputStore((s) => s.heard?.level ?? 0);
  const bpm = inputStore((s) => s.heard?.bpm ?? null);
  const confidence = inputStore((s) => s.heard?.confidence ?? 0);
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
  const tempo =
    bpm === null ? 'no tempo yet' : `${bpm.toFixed(1)} bpm, ${Math.round(confidence * 100)} % sure`;
  return (
    <SourceCard
      name="Sound"
      icon={<AudioLines size={15} />}
      status={{ ...status, words: fromWords[sound.from] }}
      value={level.toFixed(2)}
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
        <span className="figures text-2xs" data-testid="heard-tempo">
          {tempo}
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
      <Meter />
    </SourceCard>
  );
}
