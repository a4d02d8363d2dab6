import { useRef, useState } from 'react';

/** Something that acts while it is held: by a pointer, each finger for itself, or by Enter and Space. */
export function useHold(act: (held: boolean) => void): {
  held: boolean;
  handlers: Pick<
    React.ComponentProps<'button'>,
    'onPointerDown' | 'onPointerUp' | 'onPointerCancel' | 'onKeyDown' | 'onKeyUp' | 'onBlur'
  >;
} {
  const [held, setHeld] = useState(false);
  const isHeld = useRef(false);
  const put = (to: boolean): void => {
    if (to === isHeld.current) return;
    isHeld.current = to;
    setHeld(to);
    act(to);
  };
  const lift = (): void => put(false);
  return {
    held,
    handlers: {
      onPointerDown(event) {
        event.currentTarget.setPointerCapture(event.pointerId);
        put(true);
      },
      onPointerUp: lift,
      onPointerCancel: lift,
      onKeyDown(event) {
        if ((event.key !== 'Enter' && event.key !== ' ') || event.repeat) return;
        event.preventDefault();
        put(true);
      },
      onKeyUp: lift,
      onBlur: lift,
    },
  };
}
