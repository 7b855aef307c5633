import { moveJoint } from '#core/board/arrange.ts';
import type { Strip } from '#core/board/recipe.ts';

/** Height of the handle on a joint, pixels: narrow strips must still leave room to be taken up themselves. */
export function grip(stripHeight: number): number {
  return Math.max(3, Math.min(8, stripHeight * 0.4));
}

/** A link of the chain of widths beside a row, pixels. */
export function chainOf(x: number, height: number): string {
  return `M${x - 4} 0h8M${x - 4} ${height}h8M${x} 0v${height}`;
}

/**
 * The rows of a drawing while a joint is dragged: moved straight in the page, frame by frame, while React leaves them alone. What it sets last is what React
 * sets when the hands let go, so the two never disagree once they rest.
 */
export class RowMover {
  private readonly rows: readonly Element[];
  private readonly joints: readonly Element[];
  private readonly outlines: readonly Element[];
  /** The widths of the two strips at the joint, written every frame over those that React wrote a moment ago. */
  private readonly widths: readonly { live: SVGTextElement; written: Element | null }[];

  /** @param parts of a width as it stands in a drawing, three to a text */
  constructor(
    svg: SVGSVGElement,
    private readonly index: number,
    private readonly top: number,
    private readonly scale: number,
    private readonly parts: (mm: number) => readonly string[],
  ) {
    this.rows = [...svg.querySelectorAll('[data-strip]')];
    this.joints = [...svg.querySelectorAll('[data-joint]')];
    this.outlines = [...svg.querySelectorAll('[data-in-hand] rect')];
    this.widths = [...svg.querySelectorAll<SVGTextElement>('[data-live-width]')].map((live, i) => ({
      live,
      written: this.rows[index + i]?.querySelector('[data-width]') ?? null,
    }));
  }

  /** Gives the widths back to React. */
  end(): void {
    this.widths.forEach((_, nth) => this.giveBack(nth));
  }

  private giveBack(nth: number): void {
    const { live, written } = this.widths[nth] ?? {};
    for (const part of live?.children ?? []) part.textContent = '';
    written?.removeAttribute('visibility');
  }

  private write(nth: number, mm: number, middle: number): void {
    const { live, written } = this.widths[nth] ?? {};
    if (!live || !written) return;
    written.setAttribute('visibility', 'hidden');
    live.setAttribute('y', String(middle));
    this.parts(mm).forEach((part, i) => {
      live.children.item(i)?.replaceChildren(part);
    });
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
      if (i === this.index || keepSum) this.write(i - this.index, strip.width, y + height / 2);
      else this.giveBack(1);
      // The other joints are not seen while one is held; React moves them in the end.
      if (i === this.index) {
        this.joints[i]?.setAttribute('y', String(y + height - grip(height) / 2));
        this.joints[i]?.setAttribute('aria-valuenow', String(Number(strip.width.toFixed(2))));
      }
      for (const rect of this.rows[i]?.querySelectorAll('[data-tall]') ?? [])
        rect.setAttribute('height', String(height));
      const chain = this.rows[i]?.querySelector<SVGElement>('[data-chain]');
      chain?.setAttribute('d', chainOf(Number(chain.dataset.chain), height));
      if (i === this.index) for (const outline of this.outlines) outline.setAttribute('height', String(height));
    });
  }
}
