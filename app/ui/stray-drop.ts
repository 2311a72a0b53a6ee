/** Files dropped beside a place that takes them: the browser would leave the app and open them. */
export function guardDrops(page: Window): void {
  for (const kind of ["dragover", "drop"] as const)
    page.addEventListener(kind, (e) => {
      // a place that takes files has said so already
      if (e.defaultPrevented || !e.dataTransfer?.types.includes("Files")) return;
      e.preventDefault();
      e.dataTransfer.dropEffect = "none";
    });
}
