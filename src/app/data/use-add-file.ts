import { useState } from 'react';
import { addFile, FileError } from './files';

/** Takes files into the show and hands on their ids; `fault` says why the last one could not be kept. */
export function useAddFile(onAdded: (id: string) => void): {
  fault: string;
  take(file: File | undefined): Promise<void>;
} {
  const [fault, setFault] = useState('');
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      onAdded(await addFile(file));
      setFault('');
    } catch (error) {
      setFault(error instanceof FileError ? error.message : `The file could not be kept (${String(error)}).`);
    }
  };
  return { fault, take };
}
