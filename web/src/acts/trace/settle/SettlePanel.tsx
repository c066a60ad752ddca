import { useEffect } from "react";
import type { Schemas } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { difference, fineInWords, unitWord } from "../../../ui/measures";
import { count } from "../../../ui/numbers";
import { NextThing, Plain } from "../../../ui/parts";
import { previewSettling, settle, useSettling } from "./settling";

function reason(unheld: Schemas["Settled"]["unheld"][number]): string {
  switch (unheld.why) {
    case "not parallel":
      return `its walls run ${unheld.degrees.toFixed(1)}° apart`;
    case "curved":
      return "one of its walls is curved";
    case "wall gone":
      return "one of its walls is gone";
    case "not reached":
      return "what outranks it keeps its walls where they are";
  }
}

/** What settling would move, before anything is moved, and which figures contradict each other. */
export function SettlePanel() {
  const storey = useDesk((s) => s.storey);
  return storey === null ? null : <Of storey={storey} />;
}

function Of({ storey }: { storey: string }) {
  const settled = useSettling();
  const figures = useProject((s) => s.rows.figure);
  const revision = useProject((s) => s.revision);
  useEffect(() => {
    if (revision >= 0) void previewSettling(storey);
  }, [storey, revision]);
  const told = settled.of === storey ? settled.told : null;
  if (!told) return null;
  const text = (id: string) => figures.get(id)?.text ?? "a figure";
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Settle">
      {told.moves.length === 0 ? (
        <p>
          Walls that are meant square or parallel are
          {told.contradictions.length + told.unheld.length === 0
            ? ", and decided figures hold."
            : told.held.length > 0
              ? `, and ${count(told.held.length, "figure")} hold${told.held.length === 1 ? "s" : ""}.`
              : "."}
        </p>
      ) : (
        <>
          <p>
            {count(told.straightened, "wall")} made exactly square or parallel
            {told.held.length > 0 && `, ${count(told.held.length, "figure")} held`}. Largest move{" "}
            <strong>{fineInWords(told.largestMm, 1)}</strong>, of {count(told.moves.length, "corner")}.
          </p>
          <NextThing onClick={() => void settle(storey)}>Settle the storey: move them there</NextThing>
        </>
      )}
      {told.contradictions.map((c) => (
        <div key={c.figure} className="mt-2 border-t border-line pt-2 text-rust">
          <p>
            {text(c.figure)} is {difference(c.byMm)}
            {unitWord()} against {c.chain.length === 0 ? "the walls between" : c.chain.map(text).join(" and ")}. The
            tracing speaks most against <strong>{text(c.culprit)}</strong>.
          </p>
          <Plain
            onClick={() => useDesk.setState({ selected: { type: "figure", id: c.culprit }, group: [], things: [] })}
          >
            Decide about {text(c.culprit)}
          </Plain>
        </div>
      ))}
      {told.unheld.map((u) => (
        <p key={u.figure} className="mt-2 border-t border-line pt-2">
          <button
            type="button"
            className="underline underline-offset-2"
            onClick={() => useDesk.setState({ selected: { type: "figure", id: u.figure }, group: [], things: [] })}
          >
            {text(u.figure)}
          </button>{" "}
          holds nothing: {reason(u)}.
        </p>
      ))}
    </section>
  );
}
