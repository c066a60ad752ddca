import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { api, settled } from "../api/client";
import { SignInPage } from "./account/SignInPage";

// What is opened brings its own code.
const AccountPage = lazy(async () => ({ default: (await import("./account/AccountPage")).AccountPage }));
const GuidePage = lazy(async () => ({ default: (await import("./guide/GuidePage")).GuidePage }));
const MeterPage = lazy(async () => ({ default: (await import("./meter/MeterPage")).MeterPage }));
const ProjectPage = lazy(async () => ({ default: (await import("./project/ProjectPage")).ProjectPage }));
const ProjectsPage = lazy(async () => ({ default: (await import("./projects/ProjectsPage")).ProjectsPage }));

/** `#/project/ID` opens a project, `#/account` one's own account, `#/guide` how the job goes, `#/meter` the simulated distance meter, anything else the list. */
function useAddress(): { project: string | null; hash: string } {
  const [hash, setHash] = useState(window.location.hash);
  useEffect(() => {
    const onHash = () => setHash(window.location.hash);
    window.addEventListener("hashchange", onHash);
    return () => window.removeEventListener("hashchange", onHash);
  }, []);
  const project = /^#\/project\/([0-9a-f-]{36})$/.exec(hash)?.[1] ?? null;
  return { project, hash };
}

export function App() {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ["account"], queryFn: () => settled(api.GET("/api/account")) });
  const { project, hash } = useAddress();
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
  return (
    <Suspense>
      {hash === "#/meter" ? (
        <MeterPage />
      ) : hash === "#/guide" ? (
        <GuidePage />
      ) : hash === "#/account" ? (
        <AccountPage account={data.account} onSignedOut={refresh} />
      ) : project ? (
        <ProjectPage key={project} id={project} account={data.account} onSignedOut={refresh} />
      ) : (
        <ProjectsPage account={data.account} onSignedOut={refresh} />
      )}
    </Suspense>
  );
}
