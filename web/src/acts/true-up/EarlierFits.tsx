import { Disclosure, DisclosureButton, DisclosurePanel } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../../api/client";
import { inProject, useProject } from "../../store/project";
import { plusMinus, unitWord } from "../../ui/measures";
import { Link } from "../../ui/parts";
import { sendStatement } from "../statements";

/** The fits a drawing has had; any of them can be gone back to. */
export function EarlierFits({ drawing }: { drawing: string }) {
  return (
    <Disclosure as="div" className="border-b border-line px-4 py-2 text-[13px]">
      <DisclosureButton className="font-semibold underline">Earlier fits</DisclosureButton>
      <DisclosurePanel>
        <List drawing={drawing} />
      </DisclosurePanel>
    </Disclosure>
  );
}

function List({ drawing }: { drawing: string }) {
  const revision = useProject((s) => s.revision);
  const locked = useProject((s) => s.rows.drawing.get(drawing)?.locked ?? false);
  const { data } = useQuery({
    queryKey: ["fits", drawing, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/drawings/{id}/fits", { params: { path: inProject(drawing) } })),
  });
  const fits = data?.fits ?? [];
  return (
    <ol className="mt-1">
      {fits.map((fit, i) => (
        <li key={fit.revision} className="flex justify-between gap-2 py-1">
          <span className="min-w-0">
            <span className="block truncate">{fit.title}</span>
            <span className="text-quiet">
              {fit.plusMinusMmPer10m === null ? "by guess" : `${plusMinus(fit.plusMinusMmPer10m)}${unitWord()}`} ·{" "}
              {fit.mmPerPixel.toFixed(3)} mm/px · {fit.model}
            </span>
          </span>
          {i === 0 ? (
            <span className="text-quiet">now</span>
          ) : (
            !locked && (
              <Link
                onClick={() =>
                  void sendStatement("Back to an earlier fit", [
                    { do: "goBack", goBack: { drawing, revision: fit.revision } },
                  ])
                }
              >
                Go back
              </Link>
            )
          )}
        </li>
      ))}
    </ol>
  );
}
