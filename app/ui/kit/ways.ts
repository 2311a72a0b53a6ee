/** How this shop writes dates and times, for all that is drawn within it. Nothing is loaded for it. */
import { createContext, useContext } from "react";
import type { Shop } from "../../core/records/shop";
import type { Face } from "../../core/time/zoned";

const Ways = createContext<Pick<Shop, "clockFace" | "weekStart">>({});
/** What is drawn within it writes dates as this shop does. */
export const WaysOf = Ways.Provider;
export const useWays = (): Pick<Shop, "clockFace" | "weekStart"> => useContext(Ways);
/** by 24 hours or by twice 12 */
export const useFace = (): Face => useWays().clockFace ?? "24";
