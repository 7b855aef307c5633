import { moveJoint } from '#core/board/arrange.ts';
import type { Strip } from '#core/board/board.ts';

/** Height of the handle on a joint, pixels: narrow strips must still leave room to be taken up themselves. */
export function grip(stripHeight: number): number {
  return Math.max(3, Math.min(8, stripHeight * 0.4));
}

/**
 * The rows of a drawing while a joint is dragged: moved straight in the page, frame by frame, and by React only now and then. What it sets is always what
 * React sets a moment later, so the two never disagree once the hands rest.
 */
export class RowMover {
  private readonly rows: readonly Element[];
  private readonly joints: readonly Element[];
  private readonly outlines: readonly Element[];

  constructor(svg: SVGSVGElement, private readonly index: number, private readonly top: number, private readonly scale: number) {
    this.rows = [...svg.querySelectorAll('[data-strip]')];
    this.joints = [...svg.querySelectorAll('[data-joint]')];
    this.outlines = [...svg.querySelectorAll('[data-in-hand] rect')];
  }

  /** @param strips as React has drawn them last @param width of the strip before the joint, mm @param keepSum its neighbour gives or takes the difference */
  move(strips: readonly Strip[], width: number, keepSum: boolean): void {
    const moved = moveJoint(strips, this.index, width, keepSum);
    let at = 0;
    moved.forEach((strip, i) => {
      const y = this.top + at * this.scale;
      const height = strip.width * this.scale;
      at += strip.width;
      if (i < this.index) return;
      this.rows[i]?.setAttribute('transform', `translate(0 ${y})`);
      if (i > this.index + 1) return;
      // The other joints are not seen while one is held; React moves them now and then.
      if (i === this.index) this.joints[i]?.setAttribute('y', String(y + height - grip(height) / 2));
      for (const rect of this.rows[i]?.querySelectorAll('[data-tall]') ?? []) rect.setAttribute('height', String(height));
      if (i === this.index) for (const outline of this.outlines) outline.setAttribute('height', String(height));
    });
  }
}
