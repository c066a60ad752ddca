import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { found } from "./finding";

const card = (name: string, purpose: Schemas["Purpose"]): Schemas["ProjectCard"] => ({
  id: name,
  name,
  purpose,
  unit: "mm",
  revision: 1,
  preview: null,
  role: "owner",
  binned: null,
});
const projects = [card("Fen 10", "planning"), card("Fen 9", "construction"), card("Annexe", "planning")];
const names = (words: string, order: Parameters<typeof found>[2] = "newest first") =>
  found(projects, words, order).map((p) => p.name);

describe("projects are found", () => {
  it("by every word of their name or purpose, however it is written", () => {
    expect(names("fen")).toEqual(["Fen 10", "Fen 9"]);
    expect(names(" PLANNING  fen")).toEqual(["Fen 10"]);
    expect(names("barn")).toEqual([]);
  });

  it("in the order that is asked for, numbers by their value", () => {
    expect(names("")).toEqual(["Fen 10", "Fen 9", "Annexe"]);
    expect(names("", "by name")).toEqual(["Annexe", "Fen 9", "Fen 10"]);
    expect(names("", "by what it is for")).toEqual(["Fen 9", "Annexe", "Fen 10"]);
  });
});
