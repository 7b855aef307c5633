import { useEffect, useRef, useState, type ReactNode } from 'react';

interface ScrolledProps {
  /** What it is, for whoever comes to it by keys. */
  name: string;
  children: ReactNode;
}

/** What may be wider than its place scrolls sideways; by keys too, as soon as there is something to scroll to. A group, no landmark: many of a name may stand on a page. */
export function Scrolled({ name, children }: ScrolledProps) {
  const box = useRef<HTMLDivElement>(null);
  const [wider, setWider] = useState(false);
  useEffect(() => {
    const element = box.current;
    if (!element) return undefined;
    const resized = new ResizeObserver(() => setWider(element.scrollWidth > element.clientWidth));
    for (const one of [element, ...element.children]) resized.observe(one);
    return () => resized.disconnect();
  }, [children]);
  return (
    <div
      ref={box}
      style={{ overflowX: 'auto' }}
      {...(wider && { tabIndex: 0, role: 'group', 'aria-label': `${name}, scrolls sideways` })}
    >
      {children}
    </div>
  );
}
