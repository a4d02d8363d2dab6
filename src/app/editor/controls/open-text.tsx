import { FolderOpen } from 'lucide-react';
import { useRef } from 'react';
import { say } from '../../parts/notices';

/** More than any table of a show; a larger file was chosen by mistake. */
const mostBytes = 1 << 20;

/** Takes over the content of a text file. */
export function OpenText({
  label,
  accepts,
  onOpen,
}: {
  label: string;
  accepts: string;
  onOpen(text: string): void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    if (file.size > mostBytes) {
      say({
        tone: 'warning',
        text: `${file.name} is larger than a megabyte. Choose a table with fewer rows.`,
      });
      return;
    }
    onOpen(await file.text());
  };
  return (
    <>
      <button
        type="button"
        className="tool self-start"
        title="Take it from a file"
        aria-label={`Choose a file for ${label}`}
        onClick={() => input.current!.click()}
      >
        <FolderOpen size={14} />
      </button>
      <input
        ref={input}
        type="file"
        accept={accepts}
        className="hidden"
        data-testid="text-input"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          void take(file);
        }}
      />
    </>
  );
}
