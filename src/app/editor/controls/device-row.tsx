import { useQuery, useQueryClient } from '@tanstack/react-query';
import { RefreshCw } from 'lucide-react';
import type { DeviceSpec } from '../../../core/kind/controls';
import { askForCameras, listCameras } from '../../engine/cameras';
import { say } from '../../parts/notices';
import { SelectField } from '../../parts/field';

const cameras = ['cameras'];

/** Chooses a camera of this machine, or the stand-in. */
export function DeviceRow({
  label,
  spec,
  value,
  onChange,
}: {
  label: React.ReactNode;
  spec: DeviceSpec;
  value: string;
  onChange(id: string): void;
}) {
  const found = useQuery({ queryKey: cameras, queryFn: listCameras });
  const queries = useQueryClient();
  const options: [string, string][] = [
    ['', 'Stand-in'],
    ...(found.data ?? []).map(({ id, name }): [string, string] => [id, name]),
  ];
  if (!options.some(([id]) => id === value)) options.push([value, 'A camera that is not here']);
  const ask = async (): Promise<void> => {
    try {
      queries.setQueryData(cameras, await askForCameras());
    } catch (error) {
      const refused = error instanceof Error && error.name === 'NotAllowedError';
      say({
        tone: 'warning',
        text: refused
          ? 'The browser may not use a camera. Allow it in the address bar.'
          : 'No camera was found. Plug one in; the stand-in plays meanwhile.',
      });
    }
  };
  return (
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
        aria-label="Look for cameras"
        title="Look for cameras; the browser may ask for leave"
        onClick={() => void ask()}
      >
        <RefreshCw size={13} />
      </button>
    </div>
  );
}
