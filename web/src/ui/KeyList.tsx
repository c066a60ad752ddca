import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { useDesk } from "../desk/desk";
import { KEYS } from "../steps/steps";

export function KeyList() {
  const shown = useDesk((s) => s.keysShown);
  const single = useDesk((s) => s.singleKeys);
  const close = () => useDesk.setState({ keysShown: false });
  return (
    <Dialog open={shown} onClose={close} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-ink/20 p-6">
        <DialogPanel className="w-[460px] rounded-xl border border-line bg-sheet p-6">
          <DialogTitle className="text-xl font-bold">Keys</DialogTitle>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
            {KEYS.map(({ key, does }) => (
              <div key={key} className="contents">
                <dt>
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
