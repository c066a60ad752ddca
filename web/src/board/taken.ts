import { useDesk } from "./desk";
import { paintBoard } from "./painting";
import { images } from "./picture";

/** Pixels of the picture for one of the board, and the most of its longer side. */
const TIMES = 4;
const MOST_PX = 8000;
/** Tiles are waited for so long, ms. */
const WAITS_MS = 8000;

/** x and y for a pixel to the right, for one down, and of the middle of the first one: the lines of a world file. */
export type World = readonly [number, number, number, number, number, number];

/** What the board shows, as a picture, and where it lies. */
export interface TakenPicture {
  png: Blob;
  /** mm for a pixel to the right and down, and the middle of the first one */
  world: World;
  mmPerPixel: number;
}

/** The marked-up picture: all that the board shows of pictures, plan and marks, several times as fine as the screen. */
export async function takePicture(): Promise<TakenPicture> {
  const { view, size } = useDesk.getState();
  const times = Math.min(TIMES, MOST_PX / Math.max(size.width, size.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(size.width * times);
  canvas.height = Math.round(size.height * times);
  const ctx = canvas.getContext("2d", { alpha: false });
  if (!ctx) throw new Error("This browser cannot paint so large a picture.");
  const until = Date.now() + WAITS_MS;
  paintBoard(ctx, times, () => {});
  while (images.coming() > 0 && Date.now() < until) {
    await new Promise((done) => setTimeout(done, 120));
    paintBoard(ctx, times, () => {});
  }
  const marks = document.querySelector<SVGSVGElement>('svg[data-testid="marks"]');
  if (marks) {
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.drawImage(await imageOf(marks, size), 0, 0, canvas.width, canvas.height);
  }
  const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
  if (!png) throw new Error("This browser cannot keep so large a picture.");
  return { png, world: worldFile(view, size, times), mmPerPixel: 1 / (view.k * times) };
}

/** By the middle of its first pixel, as world files have it; y goes up, rows go down. */
export function worldFile(
  view: { x: number; y: number; k: number },
  size: { width: number; height: number },
  times: number,
): World {
  const mm = 1 / (view.k * times);
  const left = view.x - size.width / 2 / view.k + mm / 2;
  const top = view.y + size.height / 2 / view.k - mm / 2;
  return [mm, 0, 0, -mm, left, top];
}

/** The same in metres of a map in which the plan lies moved, turned and enlarged. */
export function onMap(
  [ax, ay, bx, by, x, y]: World,
  lies: { east: number; north: number; degrees: number; scale: number },
): World {
  const turn = (lies.degrees * Math.PI) / 180;
  const [c, s] = [(Math.cos(turn) * lies.scale) / 1000, (Math.sin(turn) * lies.scale) / 1000];
  const of = (u: number, v: number): [number, number] => [c * u - s * v, s * u + c * v];
  const [east, north] = of(x, y);
  return [...of(ax, ay), ...of(bx, by), lies.east + east, lies.north + north];
}

export const worldText = (world: World): string => world.map((n) => `${n}\n`).join("");

/** Marks as a picture of their own; their letters are the page's. */
async function imageOf(marks: SVGSVGElement, size: { width: number; height: number }): Promise<HTMLImageElement> {
  const copy = marks.cloneNode(true) as SVGSVGElement;
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", `${size.width * TIMES}`);
  copy.setAttribute("height", `${size.height * TIMES}`);
  copy.setAttribute("viewBox", `0 0 ${size.width} ${size.height}`);
  const style = document.createElementNS("http://www.w3.org/2000/svg", "style");
  style.textContent = `${await fontFaces()} text { font-family: ${getComputedStyle(marks).fontFamily}; }`;
  copy.prepend(style);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(new XMLSerializer().serializeToString(copy))}`;
  await image.decode();
  return image;
}

/** The page's own letters, to go with a picture that can fetch nothing. */
async function fontFaces(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]);
  const faces = rules.filter(
    (r): r is CSSFontFaceRule => r instanceof CSSFontFaceRule && !/U\+0?1|U\+[2-9A-F]\d\d\d/i.test(firstRange(r)),
  );
  const texts = await Promise.all(
    faces.map(async (rule) => {
      const address = /url\("?([^")]+)"?\)/.exec(rule.cssText)?.[1];
      if (!address) return "";
      const letters = await (await fetch(new URL(address, rule.parentStyleSheet?.href ?? location.href))).blob();
      const data = await new Promise<string>((done) => {
        const reader = new FileReader();
        reader.onload = () => done(String(reader.result));
        reader.readAsDataURL(letters);
      });
      return rule.cssText.replace(/url\("?[^")]+"?\)/, `url("${data}")`);
    }),
  );
  return texts.join(" ");
}

/** Where the letters of a face begin: those of other scripts are left out. */
const firstRange = (rule: CSSFontFaceRule) => rule.style.getPropertyValue("unicode-range").split(",")[0] ?? "";

/** Gives a file to whoever looks at the page. */
export function handOut(content: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
