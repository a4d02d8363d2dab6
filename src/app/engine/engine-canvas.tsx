import { useEffect, useRef } from 'react';
import type { OutputSource } from '../../engine/protocol/protocol';
import { engine } from './client';

/** Pixels of a canvas on the desk: at most 1.5 for each of the page's, since the stage comes first. */
const sizeOf = (box: HTMLElement): { width: number; height: number } => {
  const ratio = Math.min(1.5, window.devicePixelRatio || 1);
  return {
    width: Math.max(2, Math.round(box.clientWidth * ratio)),
    height: Math.max(2, Math.round(box.clientHeight * ratio)),
  };
};

/** An output on the desk. `listen` is given the element while it is shown, and gives what ends that. It and `source` have to be memoised. */
export function EngineCanvas({
  source,
  className,
  listen,
  label,
}: {
  source: OutputSource;
  className?: string;
  listen?: (element: HTMLElement) => () => void;
  label: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const output = useRef<string | null>(null);
  const latest = useRef(source);
  useEffect(() => {
    latest.current = source;
    if (output.current) engine().outputs.retarget(output.current, source);
  }, [source]);
  useEffect(() => {
    const element = box.current!;
    const client = engine();
    const id = client.outputs.add({
      source: latest.current,
      use: 'desk',
      box: () => element,
      size: () => sizeOf(element),
    });
    output.current = id;
    const observer = new ResizeObserver(() => {
      const { width, height } = sizeOf(element);
      client.outputs.resize(id, width, height);
    });
    observer.observe(element);
    const deaf = listen?.(element);
    return () => {
      deaf?.();
      observer.disconnect();
      output.current = null;
      client.outputs.remove(id);
    };
  }, [listen]);
  return (
    <div
      ref={box}
      className={`relative overflow-hidden bg-black ${className ?? ''}`}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    />
  );
}
