import { useDesk } from "../board/desk";
import { choosePlace } from "../board/place";
import { lookAt } from "../board/views";
import { useProject } from "../store/project";
import { said } from "../ui/measures";
import { Plain } from "../ui/parts";
import { type EnclosureFinding, mendOf } from "./enclosed";

/** What is wrong with enclosures, each with its place and what mends it. */
export function EnclosureFindings({ findings }: { findings: readonly EnclosureFinding[] }) {
  const rows = useProject((s) => s.rows);
  const mayEdit = useProject((s) => s.role !== "read");
  const storey = useDesk((s) => s.storey);
  return findings.map((finding) => {
    const mend = mendOf(rows, finding);
    return (
      <div key={`${finding.code} ${finding.enclosures.join()} ${finding.at.join()}`} className="py-1.5 text-rust">
        <p>{said(finding.message)}</p>
        <div className="mt-1 flex flex-wrap gap-2">
          <Plain
            onClick={() => {
              if (finding.storey !== storey) choosePlace({ storey: finding.storey, side: null });
              lookAt(finding.at);
            }}
          >
            {finding.storey === storey ? "Show the place" : `Show it on ${rows.storey.get(finding.storey)?.name}`}
          </Plain>
          {mayEdit && mend && <Plain onClick={() => void mend.go()}>{mend.words}</Plain>}
        </div>
      </div>
    );
  });
}
