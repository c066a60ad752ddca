import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { Schemas } from "../../api/client";
import { change, useProject, useProjectFields } from "../../store/project";
import { overSpan, plusMinus } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { OneOf } from "../../ui/parts";
import { Typed } from "../../ui/Typed";
import { PURPOSES } from "../projects/purposes";

/** What a project is called and what it is for; what it asks of a fit follows. */
export function ProjectPanel() {
  const { role, tolerance, revision } = useProjectFields("role", "tolerance", "revision");
  const [project] = useProject((s) => s.rows.project).values();
  const storeys = useProject((s) => s.rows.storey.size);
  const sources = useProject((s) => s.rows.source.size);
  if (!project) return null;
  const set = (title: string, values: Partial<{ name: string; purpose: Schemas["Purpose"]; areas: "m2" | "ft2" }>) =>
    void change(title, [{ do: "set", type: "project", id: project.id, values }]);
  return (
    <Popover className="relative -ml-2">
      <PopoverButton className="rounded px-1.5 py-0.5 text-quiet" aria-label="The project itself">
        ⋯
      </PopoverButton>
      <PopoverPanel className="absolute top-full left-0 z-30 mt-1.5 w-72 space-y-2 rounded-lg border border-line bg-sheet p-3 text-[13px] whitespace-normal shadow-sm">
        <Typed label="name of the project" value={project.name} set={(name) => set("Name the project", { name })} />
        <label className="block text-xs text-quiet">
          what the plan is for
          <select
            className="mt-0.5 w-full rounded border border-line bg-white px-1.5 py-1 text-[14px] text-ink"
            disabled={role === "read"}
            value={project.purpose}
            onChange={(e) => set("What it is for", { purpose: e.target.value as Schemas["Purpose"] })}
          >
            {PURPOSES.map((p) => (
              <option key={p}>{p}</option>
            ))}
          </select>
        </label>
        <OneOf
          label="Areas in"
          value={project.areas}
          of={[
            ["m2", "areas in m²"],
            ["ft2", "areas in ft²"],
          ]}
          set={(areas) => role !== "read" && set("Unit of areas", { areas })}
        />
        <p className="text-quiet">
          It asks for {plusMinus(tolerance)} over {overSpan()}. {count(storeys, "storey")}, {count(sources, "file")},{" "}
          {count(revision, "change")}.
        </p>
      </PopoverPanel>
    </Popover>
  );
}
