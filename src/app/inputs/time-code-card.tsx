import { Clock } from 'lucide-react';
import { codeText, secondsIn } from '../../core/time-code/time-code';
import type { ShowInputs } from '../../core/document/types';
import { editShow, useShow } from '../data/show-store';
import { SelectField, TextField } from '../parts/field';
import { say } from '../parts/notices';
import { useHand } from './controllers';
import { codeFps, codeStandIn, runCode } from './code-stand-in';
import { SourceCard } from './source-card';

const froms: [ShowInputs['code'], string][] = [
  ['none', 'Not followed'],
  ['midi', 'MIDI time code'],
  ['sound', 'Time code in the sound'],
];

/** Time code that cues can wait for, and a generator that stands in for the machine that sends it. */
export function TimeCodeCard() {
  const from = useShow((show) => show.inputs.code);
  const code = useHand((hand) => hand.code);
  const { start, runs } = codeStandIn();
  return (
    <SourceCard
      name="Time code"
      icon={<Clock size={15} />}
      status={{
        standing: 'here',
        message: '',
        words: from === 'sound' ? 'Read out of the sound' : 'MIDI time code',
      }}
      value={code === null ? '' : codeText(code, codeFps)}
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
          value={codeText(start, codeFps)}
          onChange={(text) => {
            const seconds = secondsIn(text, codeFps);
            if (seconds === null)
              say({ tone: 'warning', text: `“${text}” is no time code. Write it as 01:02:03:04.` });
            else {
              codeStandIn.setState({ start: seconds });
              if (runs) runCode(true);
            }
          }}
        />
        <button
          type="button"
          className="btn shrink-0 border edge bg-base-100 btn-xs"
          aria-pressed={runs}
          onClick={() => runCode(!runs)}
        >
          {runs ? 'Stop' : 'Send'}
        </button>
      </div>
    </SourceCard>
  );
}
