import { Smartphone, X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Invitation } from './invitation';

/** How a remote desk comes in, over the view that is open. */
export default function InvitationDialog({ onClose }: { onClose(): void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog ref={dialog} className="modal" aria-label="Let a remote desk in" onClose={onClose}>
      <div className="modal-box max-h-[92vh] max-w-sm border edge bg-base-200 p-4">
        <div className="mb-3 flex items-center gap-2">
          <Smartphone size={16} />
          <h2 className="grow text-base font-semibold">Let a remote desk in</h2>
          <button type="button" className="tool" aria-label="Close" onClick={onClose}>
            <X size={15} />
          </button>
        </div>
        <Invitation />
      </div>
    </dialog>
  );
}
