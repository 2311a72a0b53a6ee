import { isRouteErrorResponse, Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteError } from "react-router";
import { useState, useSyncExternalStore } from "react";
import { rawExport, troubleOf, waiting } from "./store/trouble";
import { saveFile } from "./ui/files";
import "./app.css";

export function Layout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="description" content="Plans, times and keeps record of layered colour work with a laser." />
        <link rel="manifest" href="/manifest.webmanifest" />
        <meta name="theme-color" content="#221c26" />
        <link rel="apple-touch-icon" href="/icon-192.png" />
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        <title>Rich Layer</title>
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration />
        <Scripts />
      </body>
    </html>
  );
}

export default function Root() {
  const held = useWaiting();
  return (
    <>
      {held === "superseded" && (
        <p role="alert" className="bg-lifted px-5 py-2 text-wrong">
          A newer Rich Layer is open in another tab and has brought what is stored up to date. This tab has let go of
          it; nothing more is stored from here.{" "}
          <button className="btn" onClick={() => location.reload()}>
            Reload this tab
          </button>
        </p>
      )}
      <Outlet />
    </>
  );
}

export function HydrateFallback() {
  const held = useWaiting();
  return (
    <main data-view="loading" className="grid min-h-dvh place-items-center p-6">
      <p role="status">
        {held === "blocked"
          ? "Another tab has an older Rich Layer open, and what is stored must be brought up to date first. It " +
            "waits its turn: close or reload the other tab, and this one goes on by itself."
          : "Opening the shop…"}
      </p>
    </main>
  );
}

const useWaiting = () => useSyncExternalStore(waiting.on, waiting.get, () => null);

export function ErrorBoundary() {
  const error = useRouteError();
  const held = useWaiting();
  const [rescued, setRescued] = useState<string | null>(null);
  const gone = isRouteErrorResponse(error) && error.status === 404;
  const trouble = gone ? null : troubleOf(error);
  const rescue = async (): Promise<void> => {
    try {
      saveFile("rich-layer-rescue.json", await rawExport(), "application/json");
      setRescued("Saved as it lies there. Keep this file; it holds all that could be read.");
    } catch (e) {
      setRescued(`It could not be read: ${(e as Error).message}.`);
    }
  };
  return (
    <main data-view="error" className="mx-auto max-w-xl p-8">
      <title>Rich Layer: something is wrong</title>
      <h1>
        {gone
          ? "There is nothing here"
          : held === "superseded"
            ? "A newer Rich Layer is open in another tab"
            : "This page could not be shown"}
      </h1>
      <p className="my-4">
        {gone
          ? (typeof error.data === "string" && error.data) || "The address does not lead to a page of this app."
          : held === "superseded"
            ? "It has brought what is stored up to date, so this older page has let go of it. Reload to go on with the newer one."
            : (trouble?.say ??
              `What went wrong: ${error instanceof Error ? error.message.replace(/\.$/, "") : "not known"}.`)}
      </p>
      {trouble === null && (
        <p className="my-4">Everything that was stored is still stored. Nothing has been changed.</p>
      )}
      <p className="flex flex-wrap gap-3">
        <a className="btn btn-main" href="/">
          Go to Today
        </a>
        <button className="btn" onClick={() => location.reload()}>
          Try again
        </button>
        {!gone && (
          <button className="btn" onClick={() => void rescue()}>
            Save what can be read
          </button>
        )}
      </p>
      {rescued && (
        <p role="status" className="my-4">
          {rescued}
        </p>
      )}
    </main>
  );
}
