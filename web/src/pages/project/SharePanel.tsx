import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Refused, settled } from "../../api/client";
import { useProjectFields } from "../../store/project";
import { Link, Plain } from "../../ui/parts";
import { Tokens } from "./Tokens";

/** With whom the project is shared; its owner changes that. */
export function SharePanel() {
  const { id, role } = useProjectFields("id", "role");
  if (id === null) return null;
  return (
    <Popover className="relative">
      <PopoverButton className="rounded border border-line bg-white px-2 py-0.5">
        {role === "read" ? "To read only" : "Share"}
      </PopoverButton>
      <PopoverPanel className="absolute top-full right-0 z-30 mt-1.5 w-80 whitespace-normal rounded-lg border border-line bg-sheet p-3 text-[13px] shadow-sm">
        <Shares project={id} owner={role === "owner"} />
        {role === "owner" && <Tokens project={id} />}
      </PopoverPanel>
    </Popover>
  );
}

function Shares({ project, owner }: { project: string; owner: boolean }) {
  const queries = useQueryClient();
  const [email, setEmail] = useState("");
  const [error, setError] = useState<string | null>(null);
  const path = { project };
  const { data } = useQuery({
    queryKey: ["shares", project],
    queryFn: () => settled(api.GET("/api/projects/{project}/shares", { params: { path } })),
  });
  const share = (to: string, role: "edit" | "read") =>
    settled(api.PUT("/api/projects/{project}/shares", { params: { path }, body: { email: to, role } })).then(
      (shares) => {
        queries.setQueryData(["shares", project], shares);
        setEmail("");
        setError(null);
      },
      (refused: Refused) => setError(refused.message),
    );
  const end = async (user: string) => {
    await api.DELETE("/api/projects/{project}/shares/{user}", { params: { path: { ...path, user } } });
    await queries.invalidateQueries({ queryKey: ["shares", project] });
  };
  const shares = data?.shares ?? [];
  return (
    <>
      {shares.length === 0 && <p className="text-quiet">Shared with nobody yet.</p>}
      {shares.map((s) => (
        <div key={s.id} className="flex items-center justify-between gap-2 border-b border-line py-1.5">
          <span className="min-w-0 truncate" title={s.email}>
            {s.name} <span className="text-quiet">{s.email}</span>
          </span>
          {owner ? (
            <span className="flex shrink-0 items-center gap-1.5">
              <Plain
                pressed={s.role === "edit"}
                onClick={() => void share(s.email, s.role === "edit" ? "read" : "edit")}
              >
                {s.role === "edit" ? "may edit" : "reads"}
              </Plain>
              <Link onClick={() => void end(s.id)}>end</Link>
            </span>
          ) : (
            <span className="text-quiet">{s.role === "edit" ? "may edit" : "reads"}</span>
          )}
        </div>
      ))}
      {owner && (
        <form
          className="mt-2 flex gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            if (email.trim() !== "") void share(email, "read");
          }}
        >
          <input
            className="min-w-0 flex-1 rounded border border-line bg-white px-2 py-1"
            type="email"
            aria-label="E-mail of whom it is shared with"
            placeholder="e-mail"
            value={email}
            onChange={(e) => setEmail(e.target.value)}
          />
          <button type="submit" className="rounded border border-line bg-white px-2">
            To read
          </button>
          <Plain onClick={() => email.trim() !== "" && void share(email, "edit")}>To edit</Plain>
        </form>
      )}
      {error && (
        <p role="alert" className="mt-1.5 text-rust">
          {error}
        </p>
      )}
    </>
  );
}
