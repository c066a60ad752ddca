import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { useActs } from "../../board/act";
import { useDesk } from "../../board/desk";

/** Keys that are no act's. */
const KEYS: readonly (readonly [string, string])[] = [
  ["Alt+1 … Alt+5", "go to a step"],
  ["F", "whole drawing"],
  ["T", "all that is traced"],
  ["Y", "on a side: elevation or section"],
  ["H", "how the drawings show"],
  ["V", "truth plot: remaining errors"],
  ["+ and −", "closer, further"],
  ["arrow keys", "move the board; in an act the pointer, Shift 1 px"],
  ["arrow keys in the strip", "move an end by ¼ px, Shift 1 px"],
  ["Space", "pick at the pointer"],
  ["Alt, Shift while picking", "hold the ink off; corners only"],
  ["Q", "hold square, on or off; Alt for one point"],
  ["X", "which line of the wall is traced"],
  ["digits", "a length for the line being drawn"],
  ["Enter", "set what is typed; end walls or an outline"],
  ["Escape", "one step back"],
  ["drag", "moves what is selected, or an end of it"],
  ["Shift+click, Shift+drag", "select several walls; Alt takes away"],
  ["Backspace", "remove what is selected"],
  ["Ctrl+Z, Ctrl+Shift+Z", "undo, redo"],
  ["Ctrl+V", "bring in what was copied"],
  ["?", "this list"],
];

export function KeyList() {
  const acts = useActs((s) => s.entries).map((e) => [e.key, e.label.toLowerCase()] as const);
  const shown = useDesk((s) => s.keysShown);
  const single = useDesk((s) => s.singleKeys);
  const close = () => useDesk.setState({ keysShown: false });
  return (
    <Dialog open={shown} onClose={close} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-ink/20 p-6">
        <DialogPanel className="max-h-full w-[860px] overflow-y-auto rounded-xl border border-line bg-sheet p-6">
          <DialogTitle className="text-xl font-bold">Keys</DialogTitle>
          <dl className="mt-3 gap-x-8 text-[13px] leading-5 sm:columns-2">
            {[...acts, ...KEYS].map(([key, does]) => (
              <div key={key} className="flex break-inside-avoid gap-3 py-0.5">
                <dt className="w-36 shrink-0">
                  <kbd>{key}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <label className="mt-4 flex items-center gap-2">
            <input
              type="checkbox"
              checked={single}
              onChange={(e) => useDesk.setState({ singleKeys: e.target.checked })}
            />
            single letters work as keys
          </label>
          <a className="mr-5 underline" href="#/guide" target="_blank" rel="noreferrer">
            The job in ten minutes
          </a>
          <button
            type="button"
            className="mt-3 rounded-lg border border-ink bg-white px-3 py-1.5 font-semibold"
            onClick={close}
          >
            Close
          </button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
