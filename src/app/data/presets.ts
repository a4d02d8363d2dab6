import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { ControlState } from '../../core/show/edit-controls';

interface Preset {
  name: string;
  state: ControlState;
}

/** Sets of controls that were kept, by node kind, for this browser. */
export const presets = create<{ ofKind: Readonly<Record<string, readonly Preset[]>> }>()(
  persist(() => ({ ofKind: {} as Readonly<Record<string, readonly Preset[]>> }), { name: 'pyrvel-presets' }),
);

/** Keeps a preset; one of that name is replaced. */
export const keepPreset = (name: string, state: ControlState): void =>
  void presets.setState(({ ofKind }) => ({
    ofKind: {
      ...ofKind,
      [state.kind]: [...(ofKind[state.kind] ?? []).filter((one) => one.name !== name), { name, state }].sort(
        (a, b) => a.name.localeCompare(b.name),
      ),
    },
  }));

export const dropPreset = (kind: string, name: string): void =>
  void presets.setState(({ ofKind }) => ({
    ofKind: { ...ofKind, [kind]: (ofKind[kind] ?? []).filter((one) => one.name !== name) },
  }));
