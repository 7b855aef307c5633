import { lazy, Suspense } from 'react';
import { panelWidth, stripTops } from '#core/board/board.ts';
import { nth } from '#core/lists/there.ts';
import type { BoardMiniatureProps } from './miniature.ts';
import { MiniatureFrame } from './MiniatureFrame.tsx';
import { isCutAgain, stripsOf } from '#core/board/recipe.ts';

/** Wood is drawn from where strips lie in their pieces, boards of cells from their whole plan: the first page shows itself before it has loaded either. */
const FlatMiniature = lazy(async () => ({ default: (await import('./FlatMiniature.tsx')).FlatMiniature }));
const RecutMiniature = lazy(async () => ({ default: (await import('./RecutMiniature.tsx')).RecutMiniature }));

/** A board until its wood is drawn: of a flat one the colours of its strips. */
function InColours({ board, input, scale }: BoardMiniatureProps) {
  const strips = isCutAgain(board) ? [] : stripsOf(board);
  const trim = Math.max(0, (panelWidth(board) - board.width) / 2);
  const tops = stripTops(strips);
  const within = (y: number) => Math.min(board.width, Math.max(0, y - trim)) * scale;
  return (
    <MiniatureFrame board={board} scale={scale}>
      {strips.map((strip, i) => (
        <rect
          key={strip.id}
          y={within(nth(tops, i))}
          width={board.length * scale}
          height={within(nth(tops, i) + strip.width) - within(nth(tops, i))}
          fill={input.species.find((s) => s.code === strip.species)?.colour ?? 'var(--line)'}
        />
      ))}
    </MiniatureFrame>
  );
}

/** A board small and to scale, as a picture. */
export function BoardMiniature(props: BoardMiniatureProps) {
  const Drawn = isCutAgain(props.board) && stripsOf(props.board).length > 0 ? RecutMiniature : FlatMiniature;
  return (
    <Suspense fallback={<InColours {...props} />}>
      <Drawn {...props} />
    </Suspense>
  );
}
