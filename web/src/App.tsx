import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, settled } from "./api/client";
import { ProjectPage } from "./project/ProjectPage";
import { ProjectsPage } from "./project/ProjectsPage";
import { SignInPage } from "./project/SignInPage";

/** `#/project/ID` opens a project, anything else the list. */
function projectInAddress(): string | null {
  return /^#\/project\/([0-9a-f-]{36})$/.exec(window.location.hash)?.[1] ?? null;
}

function useProjectInAddress(): string | null {
  const [id, setId] = useState(projectInAddress);
  useEffect(() => {
    const onHash = () => setId(projectInAddress());
    window.addEventListener("hashchange", onHash);
    return () => window.removeEventListener("hashchange", onHash);
  }, []);
  return id;
}

export function App() {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ["account"], queryFn: () => settled(api.GET("/api/account")) });
  const project = useProjectInAddress();
  if (error) {
    return (
      <main className="p-10">
        <h1 className="text-xl font-bold">The server cannot be reached</h1>
        <p>Start it with bin/start, then load this page again.</p>
      </main>
    );
  }
  if (!data) return null;
  const refresh = () => queries.invalidateQueries();
  if (!data.account) return <SignInPage demo={data.demo} onSignedIn={refresh} />;
  if (project) return <ProjectPage key={project} id={project} account={data.account} onSignedOut={refresh} />;
  return <ProjectsPage account={data.account} onSignedOut={refresh} />;
}
