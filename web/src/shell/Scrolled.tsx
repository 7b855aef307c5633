import { useEffect, useRef, useState, type ReactNode } from 'react';

interface ScrolledProps {
  /** What it is, for whoever comes to it by keys. */
  name: string;
  className?: string | undefined;
  children: ReactNode;
}

/** What may be wider than its place scrolls sideways; by keys too, as soon as there is something to scroll to. */
export function Scrolled({ name, className, children }: ScrolledProps) {
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
      className={className}
      style={{ overflowX: 'auto' }}
      {...(wider && { tabIndex: 0, role: 'region', 'aria-label': `${name}, scrolls sideways` })}
    >
      {children}
    </div>
  );
}
