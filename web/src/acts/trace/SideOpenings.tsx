import { useQuery } from "@tanstack/react-query";
import { api, type Operation, type Schemas, settled } from "../../api/client";
import { newId } from "../../api/ids";
import { nextOpeningNumber } from "../../store/openings";
import { change, inProject, useProject } from "../../store/project";
import { inWords, written } from "../../ui/measures";
import { Plain } from "../../ui/parts";

export type Match = Schemas["SideMatch"];

/** Below this a sill is a threshold: what stands there is a door, mm; common practice, no source. */
const THRESHOLD_MM = 250;
/** Heights that are no further apart are the same, mm. */
const SAME_MM = 1.5;
/** A foot on a floor is missed by no more, mm; common practice, no source. */
const FOOT_MM = 50;

/** How high the sill stands over its floor, and the opening from there to its head, as it was traced on the side. */
export function heightsOf({ opening, outline, floorMm }: Match): { sill: number; height: number } | null {
  if (!outline) return null;
  const traced = Math.max(0, Math.round(outline.sillMm - floorMm));
  // What stands on its floor goes on doing so where a hand missed its foot by a little.
  const sill = opening && opening.sillMm - floorMm < SAME_MM && traced < FOOT_MM ? 0 : traced;
  return { sill, height: Math.round(outline.headMm - floorMm) - sill };
}

/** Whether what was traced says something else than the plan. */
export function differs(match: Match): boolean {
  const { opening, floorMm } = match;
  const heights = heightsOf(match);
  if (!opening || !heights) return false;
  const [sill, head] = [opening.sillMm - floorMm, opening.headMm - floorMm];
  return Math.abs(sill - heights.sill) > SAME_MM || Math.abs(head - heights.sill - heights.height) > SAME_MM;
}

/** Whether it differs by more than the tracing may be off. */
export function differsSurely(match: Match): boolean {
  const { opening, floorMm, plusMinusMm } = match;
  const heights = heightsOf(match);
  if (!opening || !heights) return false;
  const off = Math.max(SAME_MM, plusMinusMm ?? 0);
  const [sill, head] = [opening.sillMm - floorMm, opening.headMm - floorMm];
  return Math.abs(sill - heights.sill) > off || Math.abs(head - heights.sill - heights.height) > off;
}

/** How far what was traced stands to the right of the plan's opening, and how much wider it is; mm. */
function asideOf({ opening, outline }: Match): { aside: number; wider: number } {
  if (!opening || !outline) return { aside: 0, wider: 0 };
  const aside = (outline.leftMm + outline.rightMm - opening.leftMm - opening.rightMm) / 2;
  return { aside, wider: outline.rightMm - outline.leftMm - (opening.rightMm - opening.leftMm) };
}

/** Whether it stands elsewhere along the side, or is wider, by what can be seen. */
export function isAside(match: Match): boolean {
  const { aside, wider } = asideOf(match);
  return Math.max(Math.abs(aside), Math.abs(wider)) > SAME_MM;
}

/** The opening is moved to where it was traced, as wide as it is there. */
export function moving({ opening, wall }: Match): Operation[] {
  if (!opening || !wall) return [];
  const values = { offset: wall.offsetMm, width: wall.widthMm };
  return [{ do: "set", type: "opening", id: opening.id, values }];
}

/** The opening takes its sill and head from the side. */
export function taking(match: Match): Operation[] {
  const heights = heightsOf(match);
  return match.opening && heights ? [{ do: "set", type: "opening", id: match.opening.id, values: heights }] : [];
}

/** What the plan lacks is put into the wall that it stands in. */
export function putting(match: Match): Operation[] {
  const heights = heightsOf(match);
  if (!match.wall || !heights) return [];
  const kind = heights.sill < THRESHOLD_MM ? "door" : "window";
  const { id: wall, offsetMm: offset, widthMm: width } = match.wall;
  const usual = { hand: "left", swing: "left", leaf: "single", number: nextOpeningNumber(kind) } as const;
  // A door stands on its floor.
  const sill = kind === "door" ? 0 : heights.sill;
  const height = heights.sill + heights.height - sill;
  return [{ do: "add", type: "opening", id: newId(), values: { wall, kind, offset, width, sill, height, ...usual } }];
}

/** What is seen of the plan's openings on a side, held against what was traced there; sills and heads are taken from it. */
export function SideOpenings({ side }: { side: string }) {
  const row = useProject((s) => s.rows.side.get(side));
  const openings = useProject((s) => s.rows.opening);
  const isThere = row !== undefined && row.fromX !== null;
  const revision = useProject((s) => (isThere ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["side openings", side, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/sides/{id}/openings", { params: { path: inProject(side) } })),
    enabled: isThere,
    placeholderData: (old, query) => (query?.queryKey[1] === side ? old : undefined),
  });
  // A section through which nothing was traced has nothing to hold them against.
  const isHeld = !row?.cut || data?.matches.some((m) => m.outline !== null);
  if (!isThere || !data || data.matches.length === 0 || !isHeld) return null;
  const apart = data.matches.filter(differsSurely);
  const lacking = data.matches.filter((m) => m.opening === null);
  return (
    <section className="border-b border-line px-4 py-3 text-[13px]" aria-label="Openings on this side">
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">Openings</span>
        {apart.length > 1 && (
          <Plain onClick={() => void change("Sills and heads from a side", apart.flatMap(taking))}>
            Take the {apart.length} that differ
          </Plain>
        )}
      </div>
      {data.plusMinusMmPer10m !== null && (
        <p className="text-quiet">What is traced here is good for ±{written(data.plusMinusMmPer10m)} over 10 m.</p>
      )}
      {data.matches.map((match) => (
        <One
          key={match.opening?.id ?? match.outline?.id}
          match={match}
          number={(match.opening && openings.get(match.opening.id)?.number) || "Opening"}
        />
      ))}
      {lacking.length > 0 && (
        <p className="mt-1 text-quiet">What was traced and has no opening can go into its wall.</p>
      )}
    </section>
  );
}

function One({ match, number }: { match: Match; number: string }) {
  const { opening, outline, floorMm } = match;
  const heights = heightsOf(match);
  if (!opening)
    return (
      <div className="mt-1.5 flex items-baseline justify-between gap-2">
        <span>
          Not in the plan, {inWords((outline?.rightMm ?? 0) - (outline?.leftMm ?? 0))} wide
          <span className="block text-quiet">
            {heights && `sill ${written(heights.sill)}, ${inWords(heights.height)} high`}
          </span>
        </span>
        <Plain onClick={() => void change("Put an opening into its wall", putting(match))}>Put it in</Plain>
      </div>
    );
  const own = { sill: Math.round(opening.sillMm - floorMm), head: Math.round(opening.headMm - floorMm) };
  return (
    <div className="mt-1.5 flex items-baseline justify-between gap-2">
      <span>
        <span className="font-semibold">{number}</span> sill {written(own.sill)}, head {written(own.head)}
        <span className={`block ${differsSurely(match) ? "text-rust" : "text-quiet"}`}>
          {outline && heights
            ? differs(match)
              ? `here ${written(heights.sill)} and ${written(heights.sill + heights.height)}`
              : "as it is here"
            : "not traced here"}
          {outline && match.plusMinusMm !== null && ` ±${written(match.plusMinusMm)}`}
          {outline && beside(match)}
        </span>
      </span>
      <span className="flex flex-col items-end gap-1">
        {differs(match) && (
          <Plain onClick={() => void change("Sill and head from a side", taking(match))}>Take them</Plain>
        )}
        {isAside(match) && match.wall && (
          <Plain onClick={() => void change("Move an opening to where a side has it", moving(match))}>
            Move it there
          </Plain>
        )}
      </span>
    </div>
  );
}

/** The same in words. */
function beside(match: Match): string {
  const { aside, wider } = asideOf(match);
  const told = [
    Math.abs(aside) >= 1 ? `${inWords(Math.abs(aside))} to the ${aside > 0 ? "right" : "left"}` : "",
    Math.abs(wider) >= 1 ? `${inWords(Math.abs(wider))} ${wider > 0 ? "wider" : "narrower"}` : "",
  ].filter((t) => t !== "");
  return told.length === 0 ? "" : ` · ${told.join(", ")}`;
}
