import type { FramePlan } from '#core/plan/plan.ts';
import { spanOf } from '#core/recipe/frameOperation.ts';
import { Length } from '../../quantities/Length.tsx';
import { FaceMap } from './FaceMap.tsx';

const SIDES = { far: 'the far side', near: 'the near side', left: 'the left end', right: 'the right end' } as const;

/** The frame round a board: where each strip goes, in the order they are glued on. */
export function FrameMap({ frame }: { frame: FramePlan }) {
  const strips = frame.rings.flatMap((ring, r) => {
    const outside = frame.rings.slice(r + 1).flatMap((o) => o.pairs.flat());
    const from = (side: 'left' | 'far') => outside.filter((s) => s.side === side).reduce((sum, s) => sum + s.width, 0);
    return ring.pairs.flat().map((strip) => {
      const [[left, top], [right, bottom]] = spanOf(strip, ring);
      return { strip, x: (left + right) / 2 + from('left'), y: (top + bottom) / 2 + from('far') };
    });
  });
  return (
    frame.framed && (
      <FaceMap
        title="Frame"
        label={`The board with its frame of ${strips.length} strips, to scale`}
        thing={frame.framed}
        height={260}
        on={(scale) =>
          strips.map(({ strip, x, y }) => (
            <g key={strip.number}>
              <circle cx={x * scale} cy={y * scale} r={9} fill="#fff" stroke="#000" strokeWidth={0.8} />
              <text x={x * scale} y={y * scale} textAnchor="middle" dominantBaseline="central">
                {strip.number}
              </text>
            </g>
          ))
        }
      >
        <li>
          Inside: <Length mm={frame.rings[0]?.inner.length ?? 0} bare /> ×{' '}
          <Length mm={frame.rings[0]?.inner.width ?? 0} />, trimmed square before the first strip
        </li>
        {frame.rings.flatMap((ring) =>
          ring.pairs.map((pair, k) => (
            <li key={`${ring.operation.id}/${k}`}>
              {k === 0 ? 'First' : 'Then, over their ends,'}{' '}
              {pair.map((s, i) => (
                <span key={s.number}>
                  {i > 0 && ' and '}strip {s.number} along {SIDES[s.side]}
                </span>
              ))}
              : <Length mm={pair[0]?.covers ?? 0} /> of joint each
            </li>
          )),
        )}
      </FaceMap>
    )
  );
}
