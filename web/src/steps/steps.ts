import type { Act, Step } from "../desk/desk";

export interface ActEntry {
  act: Act;
  label: string;
  key: string;
  when: string;
  /** where it can be done; anywhere unless it is said */
  on?: "storey" | "side";
}

export const STEPS: readonly { step: Step; label: string; acts: readonly ActEntry[] }[] = [
  { step: "bring-in", label: "Bring in", acts: [] },
  {
    step: "true-up",
    label: "True up",
    acts: [
      { act: "calibrate", label: "Calibrate", key: "C", when: "pick both ends of a length you know" },
      { act: "square", label: "Square", key: "G", when: "turn it to the grid: by the ink, a line, a figure" },
      { act: "unstretch", label: "Unstretch", key: "U", when: "a copy wider or narrower than true" },
      { act: "place", label: "Place", key: "P", when: "a corner onto the origin, an axis onto the grid" },
    ],
  },
  {
    step: "trace",
    label: "Trace",
    acts: [
      { act: "ink", label: "From the ink", key: "A", when: "click, or find all", on: "storey" },
      { act: "walls", label: "Walls", key: "W", when: "along a face or middle", on: "storey" },
      {
        act: "openings",
        label: "Doors, windows",
        key: "D",
        when: "click a gap or its edges",
        on: "storey",
      },
      { act: "rooms", label: "Rooms", key: "R", when: "click to name; divide", on: "storey" },
      { act: "figures", label: "Figures", key: "I", when: "face to face, as figured", on: "storey" },
      { act: "settle", label: "Settle", key: "S", when: "level and plumb", on: "storey" },
      { act: "notes", label: "Notes", key: "N", when: "words, assumptions", on: "storey" },
      { act: "boundary", label: "Boundary", key: "B", when: "a site, leg by leg", on: "storey" },
      { act: "levels", label: "Levels", key: "L", when: "heights: floor, sill, head, eaves, ridge", on: "side" },
      { act: "outline", label: "Outlines", key: "O", when: "faces, floors, voids" },
    ],
  },
  { step: "prove", label: "Prove", acts: [] },
  { step: "hand-over", label: "Hand over", acts: [] },
];

/** A single key that works while no slip is open. */
export interface Key {
  key: string;
  does: string;
}

export const KEYS: readonly Key[] = [
  { key: "Alt+1 … Alt+5", does: "go to a step" },
  { key: "C, G, U, P", does: "calibrate, square, unstretch, place" },
  { key: "A, S", does: "walls from the ink; settle the storey" },
  { key: "W, D, R, B", does: "walls, doors and windows, rooms, boundary" },
  { key: "I, N", does: "figures between faces, notes" },
  { key: "O, L", does: "outlines; on a side: levels" },
  { key: "M", does: "measure anything; nothing is saved" },
  { key: "F", does: "whole drawing" },
  { key: "V", does: "truth plot: remaining errors and how ± grows" },
  { key: "H", does: "how the drawings show: fade, ink only, order" },
  { key: "Ctrl+V", does: "bring in what was copied" },
  { key: "T", does: "what is traced" },
  { key: "Y", does: "on a side: one drawing for another, elevation or section" },
  { key: "+ and −", does: "closer, further" },
  { key: "arrow keys", does: "move over the board; in an act, move the pointer (Shift: 1 px)" },
  { key: "arrow keys in the strip", does: "move an end by ¼ px (Shift: 1 px)" },
  { key: "Space", does: "pick at the pointer" },
  { key: "Alt, Shift while picking", does: "hold the ink off; corners only" },
  { key: "Q", does: "hold square, on or off (Alt: free for one point)" },
  { key: "X", does: "which line of the wall is traced" },
  { key: "digits", does: "type a length for the line being drawn" },
  { key: "Enter", does: "set what is typed; end a chain of walls; close an outline" },
  { key: "Escape", does: "one step back" },
  { key: "drag", does: "a selected wall, its ends, an opening or its jambs: moves it" },
  { key: "Shift+click, Shift+drag", does: "select several walls; with Alt take away" },
  { key: "Backspace", does: "remove what is selected" },
  { key: "Ctrl+Z, Ctrl+Shift+Z", does: "undo, redo" },
  { key: "?", does: "this list" },
];
