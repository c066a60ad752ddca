import { useState } from "react";
import type { Schemas } from "../../api/client";
import { count } from "../../ui/numbers";
import { Link } from "../../ui/parts";
import { bin, copy } from "./keeping";

/** A project in the list: it is opened, copied, or put into the bin. */
export function ProjectCard(props: {
  project: Schemas["ProjectCard"];
  unsent: number | undefined;
  /** when the list is another one */
  again: () => void;
}) {
  const { project, unsent, again } = props;
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const doing = async (what: Promise<string | null>) => {
    setBusy(true);
    setError(await what);
    setBusy(false);
    again();
  };
  return (
    <li className="overflow-hidden rounded-xl border border-line bg-sheet">
      <a href={`#/project/${project.id}`} className="block">
        {project.preview ? (
          <img
            className="h-40 w-full border-b border-line object-cover"
            src={`/api/projects/${project.id}/pages/${project.preview}/preview`}
            alt=""
          />
        ) : (
          <div className="flex h-40 items-center justify-center border-b border-line bg-board text-quiet">
            no drawing yet
          </div>
        )}
        <div className="px-3.5 pt-3">
          <div className="text-[16px] font-semibold [overflow-wrap:anywhere]">{project.name}</div>
          <div className="text-[13px] text-quiet">
            for {project.purpose} · {count(project.revision, "change")}
            {project.role !== "owner" && (project.role === "edit" ? " · shared with you" : " · to read")}
          </div>
          {unsent !== undefined && (
            <div className="mt-1 text-[13px] font-medium text-rust">{unsent} not saved yet: open it and they go on</div>
          )}
        </div>
      </a>
      <fieldset disabled={busy} className="flex gap-3 px-3.5 pt-1 pb-3" aria-label={project.name}>
        <Link onClick={() => void doing(copy(project))}>Make a copy</Link>
        <a className="text-[13px] text-quiet underline" href={`/api/projects/${project.id}/archive.zip`} download>
          Take as archive
        </a>
        {project.role === "owner" && <Link onClick={() => void doing(bin(project.id))}>Put into the bin</Link>}
      </fieldset>
      {error && (
        <p role="alert" className="px-3.5 pb-3 text-[13px] text-rust">
          {error}
        </p>
      )}
    </li>
  );
}
