import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { guardDrops } from "./ui/stray-drop";
import { applyTheme } from "./ui/theme";

applyTheme();
guardDrops(window);
startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
