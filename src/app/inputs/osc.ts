import type { OscMessage } from '../../core/osc/packet';
import { say } from '../parts/notices';
import { controllers, controllersChanged, heard } from './controllers';
import { inputStore } from './input-store';

/** What the server sends for each packet, or why it listens in vain. */
interface FromServer {
  messages?: OscMessage[];
  fault?: string;
}

/** Addresses that are remembered; a sender that makes up new ones must not fill the memory. */
const mostAddresses = 2000;

let source: EventSource | null = null;
let port = 0;

function take(messages: readonly OscMessage[]): void {
  const osc = { ...controllers.osc };
  let last = '';
  for (const { address, args } of messages) {
    if (!osc[address] && Object.keys(osc).length >= mostAddresses) continue;
    // Text that is a number counts as one, other text as 0.
    const values = args.map((value) => Number(value) || 0);
    osc[address] = { args: values, count: (osc[address]?.count ?? 0) + 1 };
    heard({ type: 'osc', address, args: values });
    last = address;
  }
  controllers.osc = osc;
  if (last)
    inputStore.setState((s) => ({ osc: { ...s.osc, standing: 'here', message: '', lastAddress: last } }));
  controllersChanged();
}

/** Listens to a UDP port through the server; picks up again by itself when the server was away. */
export function listenToOsc(wanted: number): void {
  if (wanted === port && source) return;
  port = wanted;
  source?.close();
  source = new EventSource(`/osc/stream?port=${wanted}`);
  const put = (standing: 'here' | 'away', message: string): void =>
    inputStore.setState((s) => ({ osc: { ...s.osc, standing, message } }));
  source.onopen = () => {
    inputStore.setState({ server: true });
    put('here', '');
  };
  source.onerror = () => {
    inputStore.setState({ server: false });
    put('away', 'The server of Pyrvel does not answer. It is tried again; the last values stay.');
  };
  source.onmessage = ({ data }: MessageEvent<string>) => {
    const said = JSON.parse(data) as FromServer;
    if (said.fault !== undefined) put(said.fault ? 'away' : 'here', said.fault);
    if (said.messages) take(said.messages);
  };
}

/** Sends a message back to what the show names, `192.0.2.7:9000`. What cannot be sent is left: the next value follows. */
export function sendOscTo(place: string, message: OscMessage): void {
  const [to, toPort] = place.split(':');
  void fetch('/osc/send', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...message, to, port: Number(toPort) }),
  }).catch(() => undefined);
}

/** Sends a message as another program would: over UDP to the port that is listened to. */
export async function sendOsc(message: OscMessage): Promise<void> {
  const answer = await fetch('/osc/send', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...message, port }),
  }).catch(() => null);
  if (!answer?.ok)
    say({
      tone: 'warning',
      text: answer ? await answer.text() : 'The server of Pyrvel does not answer, so nothing was sent.',
    });
}
