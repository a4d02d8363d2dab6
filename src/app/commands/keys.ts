/** A key with its modifiers. `Ctrl` is the Command key on a Mac as well. */
export interface KeyChord {
  ctrl: boolean;
  shift: boolean;
  alt: boolean;
  /** `KeyboardEvent.key`, letters in lower case. */
  key: string;
}

/** Keys whose character needs Shift on many keyboards: whether it is held says nothing. */
const isSymbol = (key: string): boolean => key.length === 1 && !/[a-z0-9]/.test(key);

/** Reads keys as they are written in commands: `Ctrl+Shift+Z`, `F9`, `/`. Throws a TypeError if there is no key in them. */
export function parseKeys(text: string): KeyChord {
  const parts = text.split(/\+(?=.)/);
  const key = parts.pop();
  if (!key) throw new TypeError(`"${text}" names no key.`);
  const held = new Set(parts);
  return {
    ctrl: held.delete('Ctrl'),
    shift: held.delete('Shift'),
    alt: held.delete('Alt'),
    key: key.length === 1 ? key.toLowerCase() : key,
    ...(held.size ? unknownModifier(text) : {}),
  };
}

function unknownModifier(text: string): never {
  throw new TypeError(`"${text}" has a modifier other than Ctrl, Shift and Alt.`);
}

/** Whether an event is that chord. */
export function matches(event: KeyboardEvent, chord: KeyChord): boolean {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return (
    key === chord.key &&
    (event.ctrlKey || event.metaKey) === chord.ctrl &&
    event.altKey === chord.alt &&
    (event.shiftKey === chord.shift || isSymbol(chord.key))
  );
}
