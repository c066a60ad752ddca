import { useState } from "react";
import { api, type Refused, settled } from "../../api/client";
import { Field } from "./Field";

export function SignInPage({ demo, onSignedIn }: { demo: boolean; onSignedIn: () => void }) {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [error, setError] = useState<string | null>(null);
  const attempt = async (call: Promise<unknown>) => {
    try {
      await call;
      onSignedIn();
    } catch (e) {
      setError((e as Refused).message);
    }
  };
  return (
    <main className="flex h-full items-center justify-center">
      <div className="w-[380px] rounded-xl border border-line bg-sheet p-8">
        <h1 className="text-[26px] font-bold">Zesty Plinth</h1>
        <p className="mt-1 text-quiet">From a scanned drawing to a plan you can trust.</p>
        {demo && (
          <button
            type="button"
            className="mt-5 w-full rounded-lg border border-zest-edge bg-zest px-3 py-2.5 text-base font-semibold"
            onClick={() => void attempt(settled(api.POST("/api/demo-sign-in")))}
          >
            Open the demo
          </button>
        )}
        <form
          className="mt-5"
          onSubmit={(e) => {
            e.preventDefault();
            void attempt(settled(api.POST("/api/sign-in", { body: { email, password } })));
          }}
        >
          <Field label="E-mail" type="email" autoComplete="username" value={email} onChange={setEmail} />
          <Field
            label="Password"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={setPassword}
          />
          {error && (
            <p role="alert" className="mt-2 text-rust">
              {error}
            </p>
          )}
          <button type="submit" className="mt-4 rounded-lg border border-ink bg-white px-4 py-2 font-semibold">
            Sign in
          </button>
        </form>
      </div>
    </main>
  );
}
