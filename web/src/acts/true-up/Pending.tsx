import { mends } from "../../board/FigureSlip";
import { fineInWords, inWords, said } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { Plain } from "../../ui/parts";
import { settlePendingFit, settlePendingSlip, usePending } from "../statements";

/** A figure that looks like a slip, when the hand has gone on already. */
export function PendingSlipCard() {
  const pending = usePending((s) => s.slip);
  if (!pending) return null;
  return (
    <section role="alert" className="border-b border-line bg-white px-4 py-3 text-[14px]" aria-label="A slip?">
      <p className="text-rust">
        <b>{pending.caution.text}</b> is not taken yet. {said(pending.caution.message)}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {mends(pending.caution) && (
          <Plain onClick={() => settlePendingSlip("mended")}>Write {inWords(pending.caution.wouldBeMm)}</Plain>
        )}
        <Plain onClick={() => settlePendingSlip("typed")}>Take it as typed</Plain>
        <Plain onClick={() => settlePendingSlip("left")}>Leave it out</Plain>
      </div>
    </section>
  );
}

/** Before a fit moves the picture under what is traced: by how much, and which of the two stays. */
export function PendingFitCard() {
  const pending = usePending((s) => s.fit);
  if (!pending) return null;
  return (
    <section role="alert" className="border-b border-line bg-white px-4 py-3 text-[14px]" aria-label="The fit changes">
      <p>
        <b>{pending.title}</b> moves the picture by up to <b>{fineInWords(pending.mm)}</b> where{" "}
        {count(pending.traced, "corner")} {pending.traced === 1 ? "is" : "are"} traced.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Plain onClick={() => settlePendingFit(false)}>Keep the tracing</Plain>
        <Plain onClick={() => settlePendingFit(true)}>Carry it along</Plain>
        <Plain onClick={() => usePending.setState({ fit: null })}>Leave the fit as it is</Plain>
      </div>
    </section>
  );
}
