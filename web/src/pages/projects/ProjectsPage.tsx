import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Account, api, type Refused, type Schemas, settled } from "../../api/client";
import { newId } from "../../api/ids";
import { unsentBy } from "../../store/unsent";
import { AccountMenu } from "../account/AccountMenu";
import { Bin } from "./Bin";
import { FromArchive } from "./FromArchive";
import { found, ORDERS, type Order } from "./finding";
import { ProjectCard } from "./ProjectCard";
import { PURPOSES } from "./purposes";

/** From so many on a list is searched rather than looked through. */
const MANY = 5;

const UNITS: { unit: Schemas["Unit"]; label: string }[] = [
  { unit: "mm", label: "millimetres" },
  { unit: "cm", label: "centimetres" },
  { unit: "m", label: "metres" },
  { unit: "ft", label: "feet and inches" },
  { unit: "in", label: "inches" },
];

export function ProjectsPage({ account, onSignedOut }: { account: Account; onSignedOut: () => void }) {
  const { data, refetch } = useQuery({ queryKey: ["projects"], queryFn: () => settled(api.GET("/api/projects")) });
  const all = data?.projects ?? [];
  const [words, setWords] = useState("");
  const [order, setOrder] = useState<Order>("newest first");
  const binned = all.filter((p) => p.binned !== null);
  const projects = found(
    all.filter((p) => p.binned === null),
    words,
    order,
  );
  const unsent = unsentBy(account.id);
  return (
    <div className="min-h-full">
      <header className="flex h-[46px] items-center justify-between border-b border-line px-6">
        <span className="text-[17px] font-bold">Zesty Plinth</span>
        <span className="flex items-center gap-5">
          <a className="underline" href="#/guide">
            The job in ten minutes
          </a>
          <AccountMenu account={account} onSignedOut={onSignedOut} />
        </span>
      </header>
      <main className="mx-auto grid w-full max-w-[1120px] grid-cols-[1fr_340px] gap-8 p-8">
        <section aria-label="Projects">
          <div className="flex items-center gap-3">
            <h1 className="flex-1 text-[26px] font-bold">Projects</h1>
            {all.length >= MANY && (
              <>
                <input
                  type="search"
                  className="w-44 rounded border border-line bg-white px-2.5 py-1.5"
                  aria-label="Find a project"
                  placeholder="find"
                  value={words}
                  onChange={(e) => setWords(e.target.value)}
                />
                <select
                  className="rounded border border-line bg-white px-2 py-1.5"
                  aria-label="In which order"
                  value={order}
                  onChange={(e) => setOrder(e.target.value as Order)}
                >
                  {ORDERS.map((o) => (
                    <option key={o}>{o}</option>
                  ))}
                </select>
              </>
            )}
          </div>
          <ul className="mt-4 grid grid-cols-2 gap-4">
            {projects.map((project) => (
              <ProjectCard
                key={project.id}
                project={project}
                unsent={unsent.get(project.id)}
                again={() => void refetch()}
              />
            ))}
          </ul>
          {data && projects.length === 0 && (
            <p className="mt-4 text-quiet">
              {all.length === binned.length
                ? "Begin your first one on the right."
                : `No project is called “${words.trim()}”.`}
            </p>
          )}
          {binned.length > 0 && <Bin projects={binned} again={() => void refetch()} />}
        </section>
        <aside className="sticky top-8 h-fit space-y-4">
          <NewProject />
          <FromArchive />
        </aside>
      </main>
    </div>
  );
}

function NewProject() {
  const [name, setName] = useState("");
  const [purpose, setPurpose] = useState<Schemas["Purpose"]>("planning");
  const [unit, setUnit] = useState<Schemas["Unit"]>("mm");
  const [error, setError] = useState<string | null>(null);
  const [id] = useState(newId);
  const field = "mt-1 w-full rounded border border-line bg-white px-2.5 py-2";
  return (
    <form
      className="rounded-xl border border-line bg-sheet p-5"
      onSubmit={(e) => {
        e.preventDefault();
        settled(api.POST("/api/projects", { body: { id, name, purpose, unit } })).then(
          () => {
            window.location.hash = `#/project/${id}`;
          },
          (refused: Refused) => setError(refused.message),
        );
      }}
    >
      <h2 className="text-lg font-bold">New project</h2>
      <label className="mt-3 block">
        Name
        <input className={field} required maxLength={120} value={name} onChange={(e) => setName(e.target.value)} />
      </label>
      <label className="mt-3 block">
        What the plan is for
        <select className={field} value={purpose} onChange={(e) => setPurpose(e.target.value as Schemas["Purpose"])}>
          {PURPOSES.map((p) => (
            <option key={p}>{p}</option>
          ))}
        </select>
      </label>
      <label className="mt-3 block">
        A bare number means
        <select className={field} value={unit} onChange={(e) => setUnit(e.target.value as Schemas["Unit"])}>
          {UNITS.map((u) => (
            <option key={u.unit} value={u.unit}>
              {u.label}
            </option>
          ))}
        </select>
      </label>
      {error && (
        <p role="alert" className="mt-2 text-rust">
          {error}
        </p>
      )}
      <button
        type="submit"
        className="mt-4 w-full rounded-lg border border-zest-edge bg-zest px-3 py-2 font-semibold text-ink"
      >
        Begin
      </button>
    </form>
  );
}
