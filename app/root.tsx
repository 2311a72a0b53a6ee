import { isRouteErrorResponse, Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteError } from "react-router";
import "./app.css";

export function Layout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="description" content="Plans, times and keeps record of layered colour work with a laser." />
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
  return <Outlet />;
}

export function HydrateFallback() {
  return (
    <main data-view="loading" className="grid min-h-dvh place-items-center">
      <p role="status">Opening the shop…</p>
    </main>
  );
}

export function ErrorBoundary() {
  const error = useRouteError();
  const gone = isRouteErrorResponse(error) && error.status === 404;
  return (
    <main data-view="error" className="mx-auto max-w-xl p-8">
      <title>Rich Layer: something is wrong</title>
      <h1>{gone ? "There is nothing here" : "This page could not be shown"}</h1>
      <p className="my-4">{gone ? (typeof error.data === "string" && error.data) || "The address does not lead to a page of this app." : `What went wrong: ${error instanceof Error ? error.message : "not known"}.`}</p>
      <p className="my-4">Everything that was stored is still stored. Nothing has been changed.</p>
      <p className="flex gap-3">
        <a className="btn btn-main" href="/">Go to Today</a>
        <button className="btn" onClick={() => location.reload()}>Try again</button>
      </p>
    </main>
  );
}
