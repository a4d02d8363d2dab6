import type { Output } from '../../core/document/types';
import { givenStore } from '../machines/given';
import { giveScreen } from '../machines/main-machine';
import { machinesStore } from '../machines/machines-store';
import { SelectField } from '../parts/field';
import { Row } from '../parts/rows';

/** Which player shows an output, where other machines are there. */
export function PlayerRow({ output }: { output: Output }) {
  const cards = machinesStore((s) => s.cards);
  const given = givenStore((s) => s.given);
  const players = cards.filter(({ role }) => role === 'player');
  if (players.length === 0) return null;
  const shows = players.filter(({ machine }) => given[machine] === output.id);
  return (
    <Row label="Player">
      <SelectField
        label="Player"
        className="min-w-0 flex-1"
        value={shows[0]?.machine ?? ''}
        options={[['', 'None'], ...players.map(({ machine, name }) => [machine, name] as const)]}
        onChange={(wanted) => {
          for (const { machine } of shows) if (machine !== wanted) giveScreen(machine, null);
          if (wanted) giveScreen(wanted, output.id);
        }}
      />
    </Row>
  );
}
