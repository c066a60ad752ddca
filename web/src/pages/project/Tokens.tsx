import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Refused, type Schemas, settled } from "../../api/client";
import { Link } from "../../ui/parts";

/** With what scripts read the project: its owner makes tokens, sees when they were used, and withdraws them. */
export function Tokens({ project }: { project: string }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [words, setWords] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const path = { project };
  const again = () => queries.invalidateQueries({ queryKey: ["tokens", project] });
  const { data } = useQuery({
    queryKey: ["tokens", project],
    queryFn: () => settled(api.GET("/api/projects/{project}/tokens", { params: { path } })),
  });
  const make = () =>
    settled(api.POST("/api/projects/{project}/tokens", { params: { path }, body: { name } })).then(
      (made) => {
        setWords(made.words);
        setName("");
        setError(null);
        void again();
      },
      (refused: Refused) => setError(refused.message),
    );
  const withdraw = async (id: string) => {
    await api.DELETE("/api/projects/{project}/tokens/{id}", { params: { path: { ...path, id } } });
    setWords(null);
    await again();
  };
  return (
    <section className="mt-3 border-t border-line pt-2.5" aria-label="Scripts">
      <h3 className="font-bold">Scripts</h3>
      <p className="text-quiet">With a token a script takes any file of this project, and does nothing else.</p>
      {(data?.tokens ?? []).map((token) => (
        <div key={token.id} className="flex items-center justify-between gap-2 border-b border-line py-1.5">
          <span className="min-w-0 truncate">
            {token.name} <span className="text-quiet">{used(token)}</span>
          </span>
          <Link onClick={() => void withdraw(token.id)}>withdraw</Link>
        </div>
      ))}
      {words !== null && (
        <div className="mt-2" role="status">
          <p>Copy it now: it is not shown again.</p>
          <pre className="mt-1 rounded border border-line bg-white p-2 text-[12px] whitespace-pre-wrap [overflow-wrap:anywhere] select-all">
            {`curl -H "Authorization: Bearer ${words}" -O ${window.location.origin}/api/projects/${project}/building.ifc`}
          </pre>
        </div>
      )}
      <form
        className="mt-2 flex gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <input
          className="min-w-0 flex-1 rounded border border-line bg-white px-2 py-1"
          aria-label="What the token is for"
          placeholder="what it is for"
          maxLength={80}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <button type="submit" className="rounded border border-line bg-white px-2">
          Make a token
        </button>
      </form>
      {error && (
        <p role="alert" className="mt-1.5 text-rust">
          {error}
        </p>
      )}
    </section>
  );
}

const used = (token: Schemas["Token"]): string =>
  token.usedAt === null ? "not used yet" : `used ${new Date(token.usedAt).toLocaleDateString("en-GB")}`;
