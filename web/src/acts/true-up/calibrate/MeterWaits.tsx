import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, settled } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { useNextLength } from "../../nextLength";

/** ms between looks for a reading while a figure waits */
const LOOK = 900;

/** While the figure waits, a reading that the account's distance meter sends fills it, as taped. */
export function MeterWaits() {
  const before = useRef<string | null | undefined>(undefined);
  const { data } = useQuery({
    queryKey: ["meter"],
    queryFn: () => settled(api.GET("/api/meter")),
    refetchInterval: LOOK,
    gcTime: 0,
  });
  useEffect(() => {
    if (!data) return;
    const { reading } = data;
    // What was sent before the figure waited was meant for something else.
    if (before.current === undefined) before.current = reading?.id ?? null;
    else if (reading && reading.id !== before.current) {
      before.current = reading.id;
      useNextLength.setState({ standing: "taped" });
      useDesk.setState({ slip: `${reading.text} m`, slipError: null, caution: null });
    }
  }, [data]);
  return null;
}
