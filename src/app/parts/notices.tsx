import { X } from 'lucide-react';
import { create } from 'zustand';

export interface Notice {
  id: number;
  tone: 'info' | 'warning' | 'error';
  text: string;
  /** A button beside the text, for example Undo. */
  action?: { label: string; run(): void };
  /** It stays until it is closed, as errors do. */
  stays?: true;
}

const store = create<{ notices: Notice[] }>()(() => ({ notices: [] }));
let lastId = 0;

const dismiss = (id: number): void =>
  store.setState((s) => ({ notices: s.notices.filter((n) => n.id !== id) }));

/** Says something at the edge of the screen. */
export function say(notice: Omit<Notice, 'id'>): void {
  const id = ++lastId;
  store.setState((s) => ({
    notices: [...s.notices.filter((n) => n.text !== notice.text).slice(-3), { ...notice, id }],
  }));
  if (notice.tone !== 'error' && !notice.stays) setTimeout(() => dismiss(id), notice.action ? 10000 : 5000);
}

const tones = { info: 'border-l-secondary', warning: 'border-l-warning', error: 'border-l-error' } as const;

export function Notices() {
  const notices = store((s) => s.notices);
  return (
    <div
      className="pointer-events-none fixed bottom-3 left-3 z-50 flex w-96 flex-col gap-2"
      role="status"
      aria-live="polite"
    >
      {notices.map((notice) => (
        <div
          key={notice.id}
          data-notice={notice.tone}
          className={`pointer-events-auto flex items-start gap-3 rounded border border-l-4 edge bg-base-300 px-3 py-2 shadow-lg ${tones[notice.tone]}`}
        >
          <p className="grow">{notice.text}</p>
          {notice.action && (
            <button
              type="button"
              className="btn btn-xs btn-primary"
              onClick={() => {
                notice.action!.run();
                dismiss(notice.id);
              }}
            >
              {notice.action.label}
            </button>
          )}
          <button type="button" className="quiet" aria-label="Close" onClick={() => dismiss(notice.id)}>
            <X size={14} />
          </button>
        </div>
      ))}
    </div>
  );
}
