import { useCallback, useState } from 'react';

/**
 * Size of an element, known as soon as it is there and before it is first painted, so that nothing has to be drawn twice or shifts.
 * @returns a ref for the element, and its content size in pixels (0 before it is there)
 */
export function useMeasuredSize(): {
  ref: (element: HTMLElement | null) => (() => void) | undefined;
  width: number;
  height: number;
} {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const ref = useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    const measure = () =>
      setSize((old) =>
        old.width === element.clientWidth && old.height === element.clientHeight
          ? old
          : { width: element.clientWidth, height: element.clientHeight },
      );
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, ...size };
}
