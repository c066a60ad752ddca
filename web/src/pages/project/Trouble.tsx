import type { Held } from "../../store/edits";
import { putAside, tryNow, useProject } from "../../store/project";
import { said } from "../../ui/measures";

/** After so many failures at the same edit it may be put beside, so that those behind it go on. */
const FAILS_FOR_LONG = 3;

/** Trouble stands here in words until the next action; what is held back stays until it goes on. */
export function Trouble() {
  const held = useProject((s) => s.held);
  const trouble = useProject((s) => s.trouble);
  const waiting = useProject((s) => s.waiting);
  const unkept = useProject((s) => s.unkept);
  const kept = held && why(held, waiting);
  const words = [
    // What is held for the same reason says it once.
    trouble !== null && kept?.startsWith(trouble) ? null : trouble,
    kept,
    unkept &&
      "This browser’s room is used up: unsaved work would not outlive this page. Leave it open until all is saved.",
  ].filter((w): w is string => typeof w === "string");
  if (words.length === 0) return null;
  return (
    <div className="absolute inset-x-0 top-0 z-20 flex items-center gap-3 border-b border-rust bg-[#f8ebe4] px-4 py-1.5 text-[14px] font-medium text-rust">
      <p role="alert">{said(words.join(" "))}</p>
      {held && waiting > 0 && <Act words="Try now" act={tryNow} />}
      {held?.why === "failing" && held.tries >= FAILS_FOR_LONG && waiting > 0 && (
        <Act words="Put it beside and go on" act={putAside} />
      )}
    </div>
  );
}

function Act({ words, act }: { words: string; act: () => void }) {
  return (
    <button
      type="button"
      className="rounded border border-rust bg-white px-2 py-0.5 text-[13px] whitespace-nowrap"
      onClick={act}
    >
      {words}
    </button>
  );
}

function why({ why, message }: Held, waiting: number): string {
  const changes = `${waiting} unsaved ${waiting === 1 ? "change is" : "changes are"}`;
  switch (why) {
    case "signed-out":
      return `You are signed out. ${waiting > 0 ? "Unsaved changes are kept; sign" : "Sign"} in again in another window and they go on.`;
    case "failing":
      return `${message}${waiting > 0 ? ` ${changes} kept and tried again.` : ""}`;
    case "away":
      return `The server cannot be reached. ${waiting > 0 ? `${changes} kept and sent when it is back.` : "Waiting for it."}`;
  }
}
