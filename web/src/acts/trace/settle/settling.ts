import { create } from "zustand";
import { api, type Schemas, settled } from "../../../api/client";
import { change, inProject } from "../../../store/project";
import { said } from "../../searches";

/** What settling would do, and to which storey. */
export const useSettling = create<{ of: string; told: Schemas["Settled"] } | { of: null; told: null }>(() => ({
  of: null,
  told: null,
}));

/** What settling the storey would do. */
export async function previewSettling(storey: string): Promise<void> {
  await said(async () => {
    const told = await settled(
      api.GET("/api/projects/{project}/storeys/{id}/settled", { params: { path: inProject(storey) } }),
    );
    useSettling.setState({ of: storey, told });
  });
}

export async function settle(storey: string): Promise<void> {
  const refused = await change("Settle the storey", [{ do: "settle", settle: { storey } }]);
  if (!refused) await previewSettling(storey);
}
