import { useEffect, useRef, useState } from "react";
import { api, type Refused, settled } from "../../../api/client";
import { useDesk, useDrafted } from "../../../board/desk";
import { apply, type Map2 } from "../../../geometry/maps";
import { middle } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { turnTo } from "../squaring";
import { gridTurn, setGridLine } from "./gridLine";

/** What a picked line runs with, and by how much and which way the picture will turn: said before it does. */
export function SquareSlip({ screen }: { screen: Map2 }) {
  const picks = useDrafted("picks")?.picks;
  const drawing = useDesk((s) => s.drawing);
  const map = fitMap(
    useProject((s) => s.rows),
    drawing,
  );
  const button = useRef<HTMLButtonElement>(null);
  const field = useRef<HTMLInputElement>(null);
  // Round a site lines run on bearings.
  const isSite = useProject((s) => s.rows.drawing.get(drawing ?? "")?.kind === "site");
  const [runs, setRuns] = useState<"x" | "y" | "bearing" | null>(isSite ? "bearing" : null);
  const [bearing, setBearing] = useState("");
  const read = useBearing(bearing);
  useEffect(() => (field.current ?? button.current)?.focus(), []);
  const turn = gridTurn();
  const [a, b] = picks ?? [];
  if (!turn || !map || !a || !b) return null;
  const [p, q] = [apply(map, a.at), apply(map, b.at)];
  const angle = (Math.atan2(q[1] - p[1], q[0] - p[0]) * 180) / Math.PI;
  const along = runs ?? turn.axis;
  const degrees =
    along !== "bearing"
      ? turnTo(angle, along === "y" ? 90 : 0)
      : read.degrees === null
        ? null
        : turnTo(angle, 90 - read.degrees);
  const at = middle(apply(screen, p), apply(screen, q));
  return (
    <form
      className="absolute z-20 w-[290px] rounded-lg border-2 border-teal bg-sheet p-2 shadow-sm"
      style={{ left: Math.max(8, at[0] - 145), top: at[1] > 150 ? at[1] - 138 : at[1] + 24 }}
      onSubmit={(e) => {
        e.preventDefault();
        if (along !== "bearing") return void setGridLine({ axis: along });
        // A quick hand is ahead of what is read; what is refused is told already.
        void bearingOf(bearing).then((degrees) => setGridLine({ bearing: degrees }), ignored);
      }}
    >
      <div className="flex items-center gap-2 text-[13px]">
        This line runs with
        <select
          className="rounded border border-line bg-white px-1 py-0.5"
          aria-label="This line runs with"
          value={along}
          onChange={(e) => setRuns(e.target.value as "x" | "y" | "bearing")}
        >
          <option value="x">x</option>
          <option value="y">y</option>
          <option value="bearing">a bearing</option>
        </select>
        {along === "bearing" && (
          <input
            ref={field}
            className="w-28 rounded border border-line bg-white px-1 py-0.5"
            aria-label="Bearing, clockwise from north"
            placeholder="e.g. N 36°15′ E"
            value={bearing}
            onChange={(e) => setBearing(e.target.value)}
          />
        )}
      </div>
      <p className="mt-1.5 text-sm" data-testid="turn-words">
        {degrees === null ? (
          (read.refused ?? "Type the bearing as it is written: 63.25, 126°55'17\", N 36°15'20\" E.")
        ) : (
          <>
            The picture turns{" "}
            <b>
              {Math.abs(degrees).toFixed(2)}° {degrees >= 0 ? "left" : "right"}
            </b>
            .
          </>
        )}
      </p>
      <button
        ref={button}
        type="submit"
        className="mt-1.5 rounded border border-zest-edge bg-zest px-2 py-1 text-sm font-semibold"
      >
        Square by this line <kbd>↵</kbd>
      </button>
    </form>
  );
}

/** Degrees clockwise from north, read by the core; throws a `Refused`. */
async function bearingOf(text: string): Promise<number> {
  return (await settled(api.GET("/api/bearing", { params: { query: { text } } }))).degrees;
}

const ignored = () => {};

/** What a bearing says as it is typed. */
function useBearing(text: string): { degrees: number | null; refused: string | null } {
  const [read, setRead] = useState<{ degrees: number | null; refused: string | null }>({
    degrees: null,
    refused: null,
  });
  useEffect(() => {
    setRead({ degrees: null, refused: null });
    if (text.trim() === "") return;
    const asked = { isLatest: true };
    bearingOf(text).then(
      (degrees) => asked.isLatest && setRead({ degrees, refused: null }),
      ({ message }: Refused) => asked.isLatest && setRead({ degrees: null, refused: message }),
    );
    return () => {
      asked.isLatest = false;
    };
  }, [text]);
  return read;
}
