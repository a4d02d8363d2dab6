import { FolderOpen } from 'lucide-react';
import { useRef, useState } from 'react';
import type { FileSpec } from '../../../core/kind/controls';
import { shippedFiles } from '../../../core/show/shipped';
import { useAddFile } from '../../data/use-add-file';
import { useShow } from '../../data/show-store';
import { SelectField } from '../../parts/field';

/** Endings of files that a control takes, as the browser's chooser wants them. */
const endings: Record<FileSpec['accepts'], readonly string[]> = {
  picture: ['.png', '.jpg', '.jpeg', '.webp', '.avif', '.gif', '.svg', '.exr', '.hdr'],
  clip: ['.mp4', '.m4v', '.mov', '.webm', '.mkv', '.zip'],
  look: ['.cube'],
  model: ['.glb', '.gltf', '.obj', '.ply', '.stl'],
};

/** Chooses a file: one of the show, one that ships with the app, or one from the disk, also by dropping it here. */
export function FileRow({
  label,
  spec,
  value,
  onChange,
}: {
  label: React.ReactNode;
  spec: FileSpec;
  value: string;
  onChange(id: string): void;
}) {
  const files = useShow((show) => show.files);
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const fits = (name: string): boolean =>
    endings[spec.accepts].some((end) => name.toLowerCase().endsWith(end));
  const own = Object.entries(files).filter(([id, { name }]) => id === value || fits(name));
  const options: [string, string][] = [
    ['', 'None'],
    ...own.map(([id, { name }]): [string, string] => [id, name]),
    ...shippedFiles
      .filter(({ accepts }) => accepts === spec.accepts)
      .map(({ id, name }): [string, string] => [id, `${name} (ships with Pyrvel)`]),
  ];
  if (!options.some(([id]) => id === value)) options.push([value, `${value} (missing)`]);
  const { fault, take } = useAddFile(onChange);
  return (
    <div
      className={over ? 'outline outline-primary' : undefined}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        void take(e.dataTransfer.files[0]);
      }}
    >
      <div className="flex h-7 items-center gap-2">
        {label}
        <SelectField
          label={spec.label}
          value={value}
          options={options}
          className="min-w-0 grow"
          onChange={onChange}
        />
        <button
          type="button"
          className="tool"
          title="Choose a file from the disk, or drop one here"
          aria-label={`Choose a file for ${spec.label}`}
          onClick={() => input.current!.click()}
        >
          <FolderOpen size={14} />
        </button>
        <input
          ref={input}
          type="file"
          accept={endings[spec.accepts].join(',')}
          className="hidden"
          data-testid="file-input"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            void take(file);
          }}
        />
      </div>
      {fault && (
        <p className="text-2xs text-error" role="alert">
          {fault}
        </p>
      )}
    </div>
  );
}
