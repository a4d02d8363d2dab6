import { Piano } from 'lucide-react';
import { useRef } from 'react';
import { SelectField } from '../parts/field';
import { useAddFile } from '../data/use-add-file';
import { editShow, useShow } from '../data/show-store';
import { useHand } from './controllers';
import { inputStore } from './input-store';
import { openMidi } from './midi';
import { MidiSurface } from './midi-surface';
import { SourceCard } from './source-card';

/** MIDI devices, the file that plays, and the surface on the screen. */
export function MidiCard({ className }: { className?: string }) {
  const midi = inputStore((s) => s.midi);
  const tempo = inputStore((s) => s.midiTempo);
  const settings = useShow((show) => show.inputs.midi);
  const files = useShow((show) => show.files);
  const held = useHand(
    (hand) => Object.entries(hand.midi.notes).filter(([key, n]) => key.startsWith('0/') && n.down).length,
  );
  const input = useRef<HTMLInputElement>(null);
  const songs = Object.entries(files).filter(
    ([id, { name }]) => id === settings.file || /\.midi?$/i.test(name),
  );
  const { fault, take } = useAddFile((id) => editShow((show) => void (show.inputs.midi.file = id)));
  const words = midi.devices.length ? midi.devices.join(', ') : 'No device: using the on-screen surface';
  return (
    <SourceCard
      name="MIDI"
      icon={<Piano size={15} />}
      status={{ ...midi, words }}
      value={held ? `${held} held` : tempo ? `${tempo.toFixed(1)} bpm` : ''}
      className={className}
    >
      <div className="flex items-center gap-2">
        {midi.standing !== 'here' && (
          <button
            type="button"
            className="btn btn-xs border edge bg-base-100"
            onClick={() => void openMidi()}
          >
            Use MIDI devices
          </button>
        )}
        <span className="quiet">File</span>
        <SelectField
          label="MIDI file"
          value={settings.file}
          options={[['', 'None'], ...songs.map(([id, { name }]): [string, string] => [id, name])]}
          className="max-w-40"
          onChange={(file) => editShow((show) => void (show.inputs.midi.file = file))}
        />
        <button type="button" className="tool" onClick={() => input.current!.click()}>
          Choose…
        </button>
        <input
          ref={input}
          type="file"
          accept=".mid,.midi"
          className="hidden"
          data-testid="midi-input"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            void take(file);
          }}
        />
        {settings.file && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              aria-label="MIDI file goes round"
              className="checkbox checkbox-xs"
              checked={settings.rounds}
              onChange={(e) => editShow((show) => void (show.inputs.midi.rounds = e.target.checked))}
            />
            round
          </label>
        )}
        {fault && (
          <span className="text-2xs text-error" role="alert">
            {fault}
          </span>
        )}
      </div>
      <MidiSurface />
    </SourceCard>
  );
}
