import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./app/App";
import { Fallen } from "./app/Fallen";
import { followRegistry } from "./app/useRegistry";
import { watchWindow } from "./job/session";
import { watchFields } from "./ui/taking";
import "./index.css";

const queries = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: true, retry: 1 } } });
const root = document.getElementById("root");

const nonce = document.querySelector<HTMLMetaElement>("meta[property=csp-nonce]")?.nonce;
if (nonce) setNonce(nonce);
watchWindow();
watchFields();
followRegistry();

if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <Fallen>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </Fallen>
      </QueryClientProvider>
    </StrictMode>,
  );
}
