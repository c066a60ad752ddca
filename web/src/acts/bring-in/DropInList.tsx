import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../../api/client";
import { Plain } from "../../ui/parts";
import { size } from "./removal";
import { takeFromDropIn } from "./uploads";

/** What the office scanner has delivered, waiting to be taken into a project. */
export function DropInList() {
  const { data, refetch } = useQuery({
    queryKey: ["drop-in"],
    queryFn: () => settled(api.GET("/api/drop-in")),
    refetchInterval: 2000,
    retry: false,
  });
  if (!data) return null;
  return (
    <section className="mt-3 rounded-lg border border-line bg-white p-3" aria-label="Drop-in folder">
      <div className="flex items-baseline justify-between">
        <h3 className="font-semibold">Drop-in folder</h3>
        {data.scanner && <Plain onClick={() => void api.POST("/api/drop-in/scan")}>Scan a page</Plain>}
      </div>
      {data.files.length === 0 ? (
        <p className="text-[13px] text-quiet">
          {data.scanner ? "Empty. The simulated scanner delivers here." : "Empty. The office scanner delivers here."}
        </p>
      ) : (
        data.files.map((file) => (
          <div key={file.name} className="mt-1.5 flex items-center justify-between gap-2">
            <span className="min-w-0 text-[13px] leading-4.5">
              <span className="block truncate" title={file.name}>
                {file.name}
              </span>
              <span className="text-quiet">{size(file.bytes)}</span>
            </span>
            <Plain onClick={() => void takeFromDropIn(file.name).then(() => refetch())}>Bring in</Plain>
          </div>
        ))
      )}
    </section>
  );
}
