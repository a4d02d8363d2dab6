import clsx from 'clsx';
import { Gamepad2, Keyboard, MousePointer2, Network } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { allowAddresses, isAllowedHere } from '../actions/pixel-network';
import { TextField } from '../parts/field';
import { say } from '../parts/notices';
import { editShow, endGesture, useShow } from '../data/show-store';
import { ScrubNumber } from '../parts/scrub-number';
import { shortNumber } from '../../core/text/short-number';
import { moveStandIn } from './gamepads';
import { useHand } from './controllers';
import { inputStore } from './input-store';
import { listenToPointer, moveKey } from './keys-pointer';
import { sendOsc } from './osc';
import { SourceCard } from './source-card';

const keyRows: readonly (readonly [string, string])[][] = [
  [...'QWER'].map((k) => [`Key${k}`, k] as const),
  [...'ASDF'].map((k) => [`Key${k}`, k] as const),
  [...'1234'].map((k) => [`Digit${k}`, k] as const),
];

function KeyButton({ code, name, wide }: { code: string; name: string; wide?: boolean }) {
  const state = useHand((hand) => hand.keys[code]);
  return (
    <button
      type="button"
      aria-label={`Key ${name}`}
      aria-pressed={state?.down ?? false}
      data-keycap={code}
      className={clsx(
        'flex h-8 touch-none items-center justify-between rounded border px-2',
        wide && 'col-span-4',
        state?.down
          ? 'border-primary bg-primary text-primary-content'
          : 'edge bg-base-100 hover:border-primary',
      )}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        moveKey(code, true);
      }}
      onPointerUp={() => moveKey(code, false)}
      onPointerCancel={() => moveKey(code, false)}
    >
      {name}
      <span className="figures text-2xs opacity-70">{state?.presses || ''}</span>
    </button>
  );
}

export function KeysCard() {
  const held = useHand((hand) =>
    Object.entries(hand.keys)
      .filter(([, key]) => key.down)
      .map(([code]) => code.replace(/^Key|^Digit/, ''))
      .join(' '),
  );
  return (
    <SourceCard
      name="Keys"
      icon={<Keyboard size={15} />}
      status={{ standing: 'here', message: '', words: 'Never while you type' }}
      value={held}
    >
      <div className="grid grow grid-cols-4 content-center gap-1.5">
        {keyRows.flat().map(([code, name]) => (
          <KeyButton key={code} code={code} name={name} />
        ))}
        <KeyButton code="Space" name="Space" wide />
      </div>
    </SourceCard>
  );
}

export function PointerCard() {
  const pad = useRef<HTMLDivElement>(null);
  const pointer = useHand((hand) => hand.pointer);
  const touching = useHand((hand) => hand.pointers.length);
  useEffect(() => listenToPointer(pad.current!), []);
  return (
    <SourceCard
      name="Pointer"
      icon={<MousePointer2 size={15} />}
      status={{
        standing: 'here',
        message: '',
        words: touching > 1 ? `${touching} fingers` : 'Over the picture',
      }}
      value={`${pointer.x.toFixed(2)}  ${pointer.y.toFixed(2)}`}
    >
      <div
        ref={pad}
        className="relative mx-auto aspect-video h-40 min-h-0 grow cursor-crosshair touch-none overflow-hidden rounded bg-base-100"
        aria-label="Pointer stand-in"
        role="img"
        data-testid="pointer-pad"
      >
        <span className="absolute inset-y-0 left-1/2 w-px bg-base-300" />
        <span className="absolute inset-x-0 top-1/2 h-px bg-base-300" />
        <span
          className={clsx(
            'absolute h-3 w-3 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-primary',
            pointer.down && 'bg-primary',
          )}
          style={{ left: `${(pointer.x / (16 / 9) + 0.5) * 100}%`, top: `${(0.5 - pointer.y) * 100}%` }}
        />
      </div>
    </SourceCard>
  );
}

const noButtons = Array<number>(17).fill(0);

function Stick({
  name,
  x,
  y,
  onMove,
}: {
  name: string;
  x: number;
  y: number;
  onMove(x: number, y: number): void;
}) {
  const held = useRef(false);
  const move = (event: React.PointerEvent): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const dx = ((event.clientX - box.left) / box.width) * 2 - 1;
    const dy = 1 - ((event.clientY - box.top) / box.height) * 2;
    const size = Math.max(1, Math.hypot(dx, dy));
    onMove(dx / size, dy / size);
  };
  return (
    <div
      className="relative h-20 w-20 shrink-0 touch-none rounded-full border edge bg-base-100"
      role="img"
      aria-label={name}
      data-stick={name}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = true;
        move(event);
      }}
      onPointerMove={(event) => held.current && move(event)}
      onPointerUp={() => {
        held.current = false;
        onMove(0, 0);
      }}
    >
      <span
        className="absolute h-7 w-7 -translate-x-1/2 -translate-y-1/2 rounded-full bg-base-content/80"
        style={{ left: `${50 + x * 32}%`, top: `${50 - y * 32}%` }}
      />
    </div>
  );
}

export function GamepadCard() {
  const pads = inputStore((s) => s.pads);
  const pad = useHand((hand) => hand.pads[0]);
  const sticks = pad?.sticks ?? [0, 0, 0, 0];
  const buttons = pad?.buttons.length ? pad.buttons : noButtons;
  const isReal = pads.length > 0;
  const put = (nextSticks: readonly number[], nextButtons: readonly number[]): void => {
    if (!isReal) moveStandIn({ sticks: nextSticks, buttons: nextButtons });
  };
  const press = (k: number, value: number): void =>
    put(
      sticks,
      buttons.map((v, j) => (j === k ? value : v)),
    );
  return (
    <SourceCard
      name="Gamepad"
      icon={<Gamepad2 size={15} />}
      status={{
        standing: isReal ? 'here' : 'idle',
        message: '',
        words: isReal ? pads.join(', ') : 'None: using the on-screen pad',
      }}
      value={sticks
        .slice(0, 2)
        .map((v) => v.toFixed(2))
        .join('  ')}
    >
      <div className="flex grow items-center justify-between gap-3">
        <Stick
          name="Left stick"
          x={sticks[0]}
          y={sticks[1]}
          onMove={(x, y) => put([x, y, sticks[2], sticks[3]], buttons)}
        />
        <div className="grid grid-cols-3 gap-1.5">
          {buttons.slice(0, 9).map((value, k) => (
            <button
              key={k}
              type="button"
              aria-label={`Gamepad button ${k}`}
              className={clsx(
                'figures h-7 w-7 touch-none rounded-full border text-2xs',
                value > 0.5
                  ? 'border-primary bg-primary text-primary-content'
                  : 'edge bg-base-100 hover:border-primary',
              )}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                press(k, 1);
              }}
              onPointerUp={() => press(k, 0)}
              onPointerCancel={() => press(k, 0)}
            >
              {k}
            </button>
          ))}
        </div>
        <Stick
          name="Right stick"
          x={sticks[2]}
          y={sticks[3]}
          onMove={(x, y) => put([sticks[0], sticks[1], x, y], buttons)}
        />
      </div>
    </SourceCard>
  );
}

/** Where bound controls are sent back to; another machine has to be allowed on this one first. */
function SendBack() {
  const to = useShow((show) => show.inputs.osc.to);
  const [, setAllowed] = useState(0);
  const [address] = to.split(':');
  const isOpen = !to || address.startsWith('127.') || isAllowedHere(address);
  const allow = (one: string): void => {
    void allowAddresses([one]);
    setAllowed((n) => n + 1);
  };
  return (
    <div className="flex items-center gap-2">
      <span
        className="quiet shrink-0"
        title="Where bound controls stand is sent there, so that lights and faders follow"
      >
        Back to
      </span>
      <TextField
        label="OSC address and port that is sent back to"
        value={to}
        mono
        className="h-6"
        onChange={(text) => {
          const wanted = text.trim();
          if (wanted && !/^\d{1,3}(\.\d{1,3}){3}:\d{4,5}$/.test(wanted)) {
            say({
              tone: 'warning',
              text: `“${wanted}” is no address with a port. Write it as 192.0.2.7:9000.`,
            });
            return;
          }
          editShow((show) => void (show.inputs.osc.to = wanted));
          // Who types it here means it.
          if (wanted) allow(wanted.split(':')[0]);
        }}
      />
      {!isOpen && (
        <button type="button" className="btn border edge bg-base-100 btn-xs" onClick={() => allow(address)}>
          Allow
        </button>
      )}
    </div>
  );
}

/** Rows shown of what came in. */
const mostRows = 40;

export function OscCard({ className }: { className?: string }) {
  const port = useShow((show) => show.inputs.osc.port);
  const status = inputStore((s) => s.osc);
  const osc = useHand((hand) => hand.osc);
  const [address, setAddress] = useState('/hive/glow');
  const [value, setValue] = useState(0.5);
  const send = (next: number): void => {
    setValue(next);
    void sendOsc({ address, args: [next] });
  };
  const rows = Object.entries(osc).slice(0, mostRows);
  return (
    <SourceCard
      name="OSC"
      icon={<Network size={15} />}
      status={{ ...status, words: `UDP port ${port} of this machine` }}
      value={
        status.lastAddress && (osc[status.lastAddress]?.args.map((v) => shortNumber(v, 2)).join(' ') ?? '')
      }
      className={className}
    >
      <div className="flex items-center gap-2">
        <span className="quiet">Port</span>
        <ScrubNumber
          label="OSC port"
          value={port}
          step={1}
          fine={1}
          digits={0}
          min={1024}
          max={65535}
          className="w-16"
          onChange={(v) => editShow((show) => void (show.inputs.osc.port = Math.round(v)), 'osc port')}
          onDone={endGesture}
        />
        <TextField
          label="OSC address to send"
          value={address}
          mono
          className="h-6"
          onChange={(v) => setAddress(v.startsWith('/') ? v : `/${v}`)}
        />
      </div>
      <div className="flex items-center gap-2">
        <input
          type="range"
          aria-label="OSC value to send"
          className="range range-xs range-primary grow"
          min={0}
          max={1}
          step={0.01}
          value={value}
          onChange={(e) => send(Number(e.target.value))}
        />
        <output className="figures w-10 text-right">{value.toFixed(2)}</output>
        <button type="button" className="btn btn-xs border edge bg-base-100" onClick={() => send(value)}>
          Send
        </button>
      </div>
      <SendBack />
      <div
        className="min-h-0 grow overflow-y-auto rounded bg-base-100 px-2 py-1"
        role="log"
        aria-label="OSC that came in"
      >
        {rows.length === 0 && (
          <p className="quiet text-2xs">Nothing has come in yet. The sender above goes over the same wire.</p>
        )}
        {rows.map(([name, { args, count }]) => (
          <div key={name} className="figures flex justify-between gap-3 text-2xs leading-5" data-osc={name}>
            <span className="truncate">{name}</span>
            <span>
              <span className="text-primary">{args.map((v) => shortNumber(v, 3)).join('  ')}</span>
              <span className="quiet"> ×{count}</span>
            </span>
          </div>
        ))}
      </div>
    </SourceCard>
  );
}
