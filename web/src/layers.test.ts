import { describe, expect, it } from "vitest";

const FILES = import.meta.glob<string>("./**/*.{ts,tsx}", { query: "?raw", import: "default", eager: true });

/** Folders in the order in which they may name each other, each only those before it. */
const LAYERS = ["api", "geometry", "store", "ui", "board", "acts", "pages"];

/** Own code without tests, and what each file imports. */
const imports = new Map(
  Object.entries(FILES)
    .filter(([path]) => !path.includes(".test.") && !path.startsWith("./testing/"))
    .map(([path, text]) => [path, [...text.matchAll(/from "(\.[^"]+)"|import\("(\.[^"]+)"\)/g)].map(named(path))]),
);

function named(path: string): (found: RegExpMatchArray) => string {
  return (found) => {
    const at = new URL(found[1] ?? found[2] ?? "", `file:///${path.slice(2)}`).pathname.slice(1);
    const file = [at, `${at}.ts`, `${at}.tsx`, `${at}/index.ts`].find((p) => FILES[`./${p}`] !== undefined);
    return `./${file ?? at}`;
  };
}

/**
 * A number that what a file imports must not exceed: by folder, and among acts first what all of them share, then what those of a step
 * share, then each act, then the step that gathers them.
 */
function layerOf(path: string): number {
  const [, folder = "", ...below] = path.split("/");
  if (below.length === 0) return LAYERS.length;
  const layer = LAYERS.indexOf(folder);
  if (folder !== "acts") return layer;
  const gathers = below.length === 1 ? below[0] === "index.ts" : below[1] === "step.tsx";
  return layer + (gathers ? 0.4 : below.length / 10 - 0.1);
}

const actOf = (path: string) => /^\.\/acts\/[^/]+\/[^/]+(?=\/)/.exec(path)?.[0];

describe("the code", () => {
  it("has every file in a folder of the list", () => {
    const folders = new Set([...imports.keys()].map((path) => path.split("/")[1] ?? ""));
    expect([...folders].filter((f) => !f.includes(".") && !LAYERS.includes(f))).toEqual([]);
    expect(imports.size).toBeGreaterThan(100);
  });

  it("goes one way: geometry, store, board, acts, pages", () => {
    const against = [...imports].flatMap(([path, to]) =>
      to
        .filter((other) => FILES[other] !== undefined && layerOf(other) > layerOf(path))
        .map((other) => `${path} → ${other}`),
    );
    expect(against).toEqual([]);
  });

  it("has no act that opens another's folder, nor a step another step's", () => {
    const into = [...imports].flatMap(([path, to]) => {
      const [act, step] = [actOf(path), /^\.\/acts\/([^/]+)\//.exec(path)?.[1]];
      return to
        .filter((other) => {
          const [others, otherStep] = [actOf(other), /^\.\/acts\/([^/]+)\//.exec(other)?.[1]];
          const isElsewhere = path.startsWith("./acts/") && otherStep !== undefined && otherStep !== step;
          return (others !== undefined && act !== undefined && others !== act) || (isElsewhere && step !== undefined);
        })
        .map((other) => `${path} → ${other}`);
    });
    expect(into).toEqual([]);
  });

  it("has no circle of files", () => {
    const circles: string[] = [];
    const done = new Set<string>();
    const walk = (path: string, way: readonly string[]): void => {
      const at = way.indexOf(path);
      if (at >= 0) return void circles.push([...way.slice(at), path].join(" → "));
      if (done.has(path)) return;
      for (const other of imports.get(path) ?? []) walk(other, [...way, path]);
      done.add(path);
    };
    for (const path of imports.keys()) walk(path, []);
    expect(circles).toEqual([]);
  });
});
