/** How this shop writes dates, times and amounts, for all that is drawn within it. Nothing is loaded for it. */
import { createContext, useContext } from "react";
import type { Shop } from "../../core/records/shop";
import type { Face } from "../../core/time/zoned";

type Written = Partial<Pick<Shop, "clockFace" | "weekStart" | "currency">>;
const Ways = createContext<Written>({});
/** What is drawn within it writes dates as this shop does. */
export const WaysOf = Ways.Provider;
export const useWays = (): Written => useContext(Ways);
/** what amounts are in */
export const useCurrency = (): string => useWays().currency ?? "EUR";
/** by 24 hours or by twice 12 */
export const useFace = (): Face => useWays().clockFace ?? "24";
