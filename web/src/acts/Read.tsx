import type { ReactNode } from "react";
import { useDesk } from "../board/desk";
import { Magnified } from "../board/Lens";
import { affineAt, scaleOf } from "../geometry/maps";
import { fitMap } from "../store/drawings";
import { ask, useProject } from "../store/project";
import { workKey } from "../store/work";
import { Link, Plain } from "../ui/parts";
import { Work } from "../ui/Work";
import { type Readings, refuse } from "./searches";

const STRIP = { width: 132, height: 30 };

/** What was read, as it is drawn. */
export function Strip(props: { box: readonly number[]; upright: boolean; words: string }) {
  const { box, upright, words } = props;
  const drawing = useDesk((s) => s.drawing);
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, drawing);
  const [l = 0, t = 0, r = 0, b = 0] = box;
  // A page that lies on its side has its level text running up.
  const across = map ? affineAt(map, [l, t]) : null;
  const isOnSide = across !== null && Math.abs(across[3]) > Math.abs(across[0]);
  const [wide, high] = upright !== isOnSide ? [b - t, r - l] : [r - l, b - t];
  return (
    <span className="block overflow-hidden rounded border border-line" role="img" aria-label={`as drawn: ${words}`}>
      {across && scaleOf(across) > 0 && (
        <Magnified
          at={[(l + r) / 2, (t + b) / 2]}
          {...STRIP}
          colour="rgba(0,0,0,0)"
          magnification={Math.min(
            6,
            (0.72 * STRIP.height) / Math.max(8, high),
            (0.92 * STRIP.width) / Math.max(8, wide),
          )}
          turn={upright ? -Math.PI / 2 : 0}
          mark="tick"
        />
      )}
    </span>
  );
}

/** What was read, to be corrected where it stands before it is taken. */
export function Corrected({ label, text, set }: { label: string; text: string; set: (text: string) => void }) {
  return (
    <input
      className="w-full min-w-0 rounded border border-transparent bg-transparent px-1 font-semibold hover:border-line focus:border-line focus:bg-white"
      aria-label={label}
      value={text}
      autoComplete="off"
      spellCheck={false}
      onChange={(e) => set(e.target.value)}
    />
  );
}

/** What is written on the drawing, each with its picture for a glance; nothing is taken until it is said. */
export function ReadSection(props: {
  label: string;
  drawing: string;
  told: Readings | null;
  /** the button that has them read */
  read: string;
  /** how many there are, in words */
  says: string;
  children: ReactNode;
}) {
  const { drawing, told } = props;
  const work = useProject((s) => s.work.get(workKey("read-figures", drawing)));
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label={props.label}>
      <Work kind="read-figures" about={drawing} />
      {work?.state !== "working" && (
        <div className="flex flex-wrap items-center gap-2">
          {/* What would be read some time can be had at once. */}
          {(work === undefined || work.state === "done" || work.state === "waiting") && (
            <Plain onClick={() => void ask("read-figures", drawing)}>{told?.found ? "Read again" : props.read}</Plain>
          )}
          {told?.found && <span className="text-quiet">{props.says}</span>}
          {told && told.refused > 0 && (
            <Link onClick={() => void refuse("readings", drawing, [])}>take back {told.refused} refused</Link>
          )}
        </div>
      )}
      {told?.found && props.children}
    </section>
  );
}
