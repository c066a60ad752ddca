import { apply, type Map2 } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { TAG_HEIGHT, tagWidth } from "./tags";

export interface Stroke {
  colour: string;
  width: number;
  dash?: readonly number[];
  fill?: string;
  alpha?: number;
  round?: boolean;
}

/** Draws on the layer that follows the hand: what is being made is painted with every move of the pointer, and React is not asked. */
export class Pen {
  constructor(
    private readonly ctx: CanvasRenderingContext2D,
    readonly screen: Map2,
    /** screen pixels per mm */
    readonly k: number,
  ) {}

  /** A model point on the screen. */
  at(p: readonly number[]): XY {
    return apply(this.screen, [p[0] ?? 0, p[1] ?? 0]);
  }

  /** Screen points joined in order, and closed where it is filled. */
  path(points: readonly XY[], look: Stroke): void {
    const { ctx } = this;
    ctx.save();
    this.take(look);
    ctx.beginPath();
    for (const [x, y] of points) ctx.lineTo(x, y);
    if (look.fill !== undefined) {
      ctx.closePath();
      ctx.fillStyle = look.fill;
      ctx.fill();
    }
    ctx.stroke();
    ctx.restore();
  }

  ring([x, y]: XY, radius: number, look: Stroke): void {
    const { ctx } = this;
    ctx.save();
    this.take(look);
    ctx.beginPath();
    ctx.arc(x, y, radius, 0, 2 * Math.PI);
    if (look.fill !== undefined) {
      ctx.fillStyle = look.fill;
      ctx.fill();
    }
    ctx.stroke();
    ctx.restore();
  }

  /** A stated line: end marks are short bars across it with a ring at the very pick. */
  stated(a: XY, b: XY, colour: string, dash?: readonly number[]): void {
    this.path([a, b], { colour, width: 2.2, ...(dash ? { dash } : {}) });
    this.ends([a, b], Math.atan2(b[1] - a[1], b[0] - a[0]), colour);
  }

  ends(points: readonly XY[], angle: number, colour: string): void {
    const [ux, uy] = [-Math.sin(angle), Math.cos(angle)];
    for (const [x, y] of points) {
      for (const side of [-1, 1]) {
        const off = (d: number): XY => [x + side * d * ux, y + side * d * uy];
        this.path([off(4), off(9)], { colour, width: 2 });
      }
      this.ring([x, y], 3.5, { colour, width: 1.6, fill: "#fdfcfa" });
    }
  }

  /** Words in a box, their middle at a screen point. */
  tag([x, y]: XY, text: string, colour: string, dashed = false): void {
    const { ctx } = this;
    const width = tagWidth(text);
    ctx.save();
    this.take({ colour, width: 1.4, ...(dashed ? { dash: [3, 2] } : {}) });
    ctx.beginPath();
    ctx.roundRect(x - width / 2, y - TAG_HEIGHT / 2, width, TAG_HEIGHT, 4);
    ctx.fillStyle = "#faf8f3";
    ctx.fill();
    ctx.stroke();
    ctx.fillStyle = colour;
    ctx.font = '600 13px "Public Sans Variable", sans-serif';
    ctx.textAlign = "center";
    ctx.textBaseline = "middle";
    ctx.fillText(text, x, y + 0.5);
    ctx.restore();
  }

  /** Small words with a rim of paper. */
  words([x, y]: XY, text: string, colour: string): void {
    const { ctx } = this;
    ctx.save();
    ctx.font = '600 11px "Public Sans Variable", sans-serif';
    ctx.textAlign = "center";
    ctx.textBaseline = "middle";
    ctx.lineWidth = 3;
    ctx.strokeStyle = "#fdfcfa";
    ctx.strokeText(text, x, y);
    ctx.fillStyle = colour;
    ctx.fillText(text, x, y);
    ctx.restore();
  }

  private take({ colour, width, dash = [], alpha = 1, round = false }: Stroke): void {
    this.ctx.strokeStyle = colour;
    this.ctx.lineWidth = width;
    this.ctx.setLineDash([...dash]);
    this.ctx.globalAlpha = alpha;
    this.ctx.lineCap = round ? "round" : "butt";
  }
}
