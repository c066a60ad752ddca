import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./pages/App";
import { loadAgainWhenRenewed } from "./renewed";
import "./styles.css";

loadAgainWhenRenewed(window, sessionStorage, () => location.reload());

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: 2 } } })}>
        <App />
      </QueryClientProvider>
    </StrictMode>,
  );
}
