import { showLocal } from "../../core/time/typed";
import { useFace } from "./ways";

/** A local moment, as the shop writes it; where there is no room for it in a line, the time goes under the day. */
export function When({ at }: { at: string | null }) {
  const [day, time] = showLocal(at, useFace()).split(", ");
  return (
    <>
      <span className="whitespace-nowrap">{time ? `${day},` : day}</span>
      {time && " "}
      {time && <span className="whitespace-nowrap">{time}</span>}
    </>
  );
}
