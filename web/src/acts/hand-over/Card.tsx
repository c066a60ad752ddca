import type { ReactNode } from "react";

/** What can be taken: what is in it, and what is not. */
export function Card(props: {
  title: string;
  take: string;
  href: string;
  inside: string;
  outside: string;
  ready: boolean;
  children?: ReactNode;
}) {
  return (
    <section className="border-b border-line p-4">
      <h3 className="text-lg font-bold">{props.title}</h3>
      <p className="mt-1 text-[14px]">{props.inside}</p>
      <p className="text-[13px] text-quiet">{props.outside}</p>
      {props.children}
      {props.ready ? (
        <a
          className="mt-2 inline-block rounded-lg border border-ink bg-white px-3 py-1.5 font-semibold"
          href={props.href}
          download
        >
          Take the {props.take}
        </a>
      ) : (
        <p className="mt-2 text-[13px] text-quiet">Trace a wall first.</p>
      )}
    </section>
  );
}
