import { Clock } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { quarterFrames } from '../../core/time-code/mtc';
import { codeText, secondsIn } from '../../core/time-code/time-code';
import type { ShowInputs } from '../../core/document/types';
import { editShow, useShow } from '../data/show-store';
import { SelectField, TextField } from '../parts/field';
import { say } from '../parts/notices';
import { useHand } from './controllers';
import { playCode } from './midi';
import { SourceCard } from './source-card';

/** Frames a second of the time code that the stand-in sends. */
const fps = 25;
/** A time takes two frames to be sent. */
const everyMs = 2000 / fps;

const froms: [ShowInputs['code'], string][] = [
  ['none', 'Not followed'],
  ['midi', 'MIDI time code'],
  ['sound', 'Time code in the sound'],
];

/** Time code that cues can wait for, and a generator that stands in for the machine that sends it. */
export function TimeCodeCard() {
  const from = useShow((show) => show.inputs.code);
  const code = useHand((hand) => hand.code);
  const [start, setStart] = useState(0);
  const [runs, setRuns] = useState(false);
  const sent = useRef(0);
  useEffect(() => {
    if (!runs) return;
    const begun = performance.now();
    sent.current = 0;
    const timer = setInterval(() => {
      const seconds = start + (performance.now() - begun) / 1000;
      const frame = Math.floor(seconds * fps);
      const whole = Math.floor(frame / fps);
      playCode(
        quarterFrames({
          hours: Math.floor(whole / 3600) % 24,
          minutes: Math.floor(whole / 60) % 60,
          seconds: whole % 60,
          frames: frame % fps,
          fps,
          drop: false,
        }),
      );
    }, everyMs);
    return () => clearInterval(timer);
  }, [runs, start]);
  return (
    <SourceCard
      name="Time code"
      icon={<Clock size={15} />}
      status={{
        standing: 'here',
        message: '',
        words: from === 'sound' ? 'Read out of the sound' : 'MIDI time code',
      }}
      value={code === null ? '' : codeText(code, fps)}
    >
      <SelectField
        label="Time code of cues"
        value={from}
        options={froms}
        onChange={(v) => editShow((show) => void (show.inputs.code = v as ShowInputs['code']))}
      />
      <p className="quiet text-2xs">Cues that start at time code follow it.</p>
      <div className="mt-auto flex items-center gap-2">
        <TextField
          label="Time code to start from"
          mono
          value={codeText(start, fps)}
          onChange={(text) => {
            const seconds = secondsIn(text, fps);
            if (seconds === null)
              say({ tone: 'warning', text: `“${text}” is no time code. Write it as 01:02:03:04.` });
            else setStart(seconds);
          }}
        />
        <button
          type="button"
          className="btn shrink-0 border edge bg-base-100 btn-xs"
          aria-pressed={runs}
          onClick={() => setRuns(!runs)}
        >
          {runs ? 'Stop' : 'Send'}
        </button>
      </div>
    </SourceCard>
  );
}
