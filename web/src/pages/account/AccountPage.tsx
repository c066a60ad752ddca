import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Account, api, type Refused, refusal, type Schemas, settled } from "../../api/client";
import { Plain } from "../../ui/parts";
import { AccountMenu } from "./AccountMenu";
import { Field } from "./Field";
import { browser, since } from "./words";

/** One's own account: where one is signed in, and the password. */
export function AccountPage({ account, onSignedOut }: { account: Account; onSignedOut: () => void }) {
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-[46px] items-center justify-between border-b border-line px-6">
        <a href="#/" className="text-[17px] font-bold">
          Zesty Plinth
        </a>
        <AccountMenu account={account} onSignedOut={onSignedOut} />
      </header>
      <main className="mx-auto grid w-full max-w-[1120px] flex-1 grid-cols-[1fr_340px] items-start gap-8 overflow-y-auto p-8">
        <section aria-label="Where you are signed in">
          <h1 className="text-[26px] font-bold">{account.name}</h1>
          <p className="text-quiet">{account.email}</p>
          <Sessions onSignedOut={onSignedOut} />
        </section>
        <Password />
      </main>
    </div>
  );
}

function Sessions({ onSignedOut }: { onSignedOut: () => void }) {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: ["sessions"], queryFn: () => settled(api.GET("/api/account/sessions")) });
  const sessions = data?.sessions ?? [];
  const end = async (session: string) => {
    await api.DELETE("/api/account/sessions/{session}", { params: { path: { session } } });
    await queries.invalidateQueries({ queryKey: ["sessions"] });
  };
  return (
    <>
      <h2 className="mt-6 text-[17px] font-semibold">Signed in</h2>
      <ul className="mt-2 rounded-lg border border-line bg-sheet">
        {sessions.map((s) => (
          <SessionRow key={s.id} session={s} end={() => void end(s.id)} />
        ))}
      </ul>
      <div className="mt-3">
        <Plain onClick={() => void api.DELETE("/api/account/sessions").then(onSignedOut)}>
          Sign out everywhere, here too
        </Plain>
      </div>
    </>
  );
}

function SessionRow({ session, end }: { session: Schemas["Session"]; end: () => void }) {
  return (
    <li className="flex items-center justify-between gap-4 border-b border-line px-3.5 py-2.5 last:border-b-0">
      <span className="min-w-0">
        <span className="block truncate font-semibold" title={session.program}>
          {browser(session.program)}
        </span>
        <span className="text-[13px] text-quiet">
          since {since(session.began)}, last seen {since(session.seen)}
        </span>
      </span>
      {session.here ? <span className="text-[13px] text-teal">here</span> : <Plain onClick={end}>Sign out there</Plain>}
    </li>
  );
}

function Password() {
  const queries = useQueryClient();
  const [current, setCurrent] = useState("");
  const [next, setNext] = useState("");
  const [told, setTold] = useState<{ words: string; isError: boolean } | null>(null);
  const change = async () => {
    try {
      const { response, error } = await api.POST("/api/account/password", { body: { current, new: next } });
      if (!response.ok) throw refusal(response.status, error);
      setTold({ words: "Changed. Everywhere else you are signed out.", isError: false });
      setCurrent("");
      setNext("");
      await queries.invalidateQueries({ queryKey: ["sessions"] });
    } catch (e) {
      setTold({ words: (e as Refused).message, isError: true });
    }
  };
  return (
    <form
      aria-label="Change the password"
      className="rounded-xl border border-line bg-sheet p-5"
      onSubmit={(e) => {
        e.preventDefault();
        void change();
      }}
    >
      <h2 className="text-[17px] font-semibold">Change the password</h2>
      <Field
        label="Present password"
        type="password"
        autoComplete="current-password"
        value={current}
        onChange={setCurrent}
      />
      <Field label="New password" type="password" autoComplete="new-password" value={next} onChange={setNext} />
      <p className="mt-1 text-[13px] text-quiet">
        At least 15 characters; a few unrelated words are good. You are signed out everywhere else.
      </p>
      {told && (
        <p role={told.isError ? "alert" : "status"} className={`mt-2 ${told.isError ? "text-rust" : "text-teal"}`}>
          {told.words}
        </p>
      )}
      <button type="submit" className="mt-4 rounded-lg border border-ink bg-white px-4 py-2 font-semibold">
        Change it
      </button>
    </form>
  );
}
