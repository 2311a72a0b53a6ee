/** Day, night or as the system says; kept beside the data because it belongs to the screen, not to the shop. */
export type Theme = "auto" | "day" | "night";
const KEY = "richlayer.theme";

export const readTheme = (): Theme => (localStorage.getItem(KEY) as Theme | null) ?? "auto";

export function applyTheme(theme: Theme = readTheme()): void {
  const night = theme === "night" || (theme === "auto" && matchMedia("(prefers-color-scheme: dark)").matches);
  document.documentElement.dataset.theme = night ? "night" : "day";
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  applyTheme(theme);
}
