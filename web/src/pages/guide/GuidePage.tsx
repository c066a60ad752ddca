import guide from "../../../../docs/guide.md";

/** How the job goes, for a designer: the guide as it lies with the documents. */
export function GuidePage() {
  return (
    <div className="min-h-full">
      <header className="flex h-[46px] items-center border-b border-line px-6">
        <a href="#/" className="text-[17px] font-bold">
          Zesty Plinth
        </a>
      </header>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: our own document, made into HTML when the interface is built */}
      <main className="guide mx-auto max-w-[760px] p-8" dangerouslySetInnerHTML={{ __html: guide }} />
    </div>
  );
}
