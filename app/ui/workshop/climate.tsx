/** The air that films dry in, the same all day or by the hour: typed in a table, drawn as a chart. */
import { lazy, Suspense } from "react";
import { air, dewPoint } from "../../core/models/drying/climate";
import type { Shop } from "../../core/records/shop";
import { said } from "../../core/units/said";
import { showTime } from "../../core/time/zoned";
import { showTemp } from "../../core/units/show";
import { PickField, TextField } from "../kit/field";

const AirChart = lazy(() => import("../charts/air-chart"));

export function ClimatePart({ shop }: { shop: Shop }) {
  const cl = { intent: "climate" };
  const curve = air(shop.climate);
  const dew = dewPoint(curve.c(720), curve.rh(720));
  return (
    <>
      <TheDay shop={shop} />
      <PickField
        action="/workshop"
        name="kind"
        label="Over the day"
        value={shop.climate.kind}
        extra={cl}
        options={[
          { value: "constant", label: "about the same all day" },
          { value: "hourly", label: "24 hourly points" },
        ]}
      />
      {shop.climate.kind === "constant" ? (
        <div className="grid grid-cols-2 gap-3">
          <TextField
            action="/workshop"
            name="c"
            label="Temperature"
            value={showTemp(shop.climate.c, shop.units)}
            extra={cl}
          />
          <TextField
            action="/workshop"
            name="rh"
            label="Humidity"
            value={`${Math.round(shop.climate.rh * 100)} %`}
            extra={cl}
          />
        </div>
      ) : (
        <HourTable shop={shop} />
      )}
      <PickField
        action="/workshop"
        name="air"
        label="Air over drying pieces"
        value={shop.climate.air}
        extra={cl}
        options={[
          { value: "still", label: "still" },
          { value: "moving", label: "moving gently" },
          { value: "extraction", label: "under extraction" },
        ]}
      />
      {dew !== null && (
        <p className="tag">
          Dew point at noon {showTemp(Math.round(dew * 10) / 10, shop.units)}: keep a surface{" "}
          {said("3 °C above", shop.units)} it before paint goes on.
        </p>
      )}
    </>
  );
}

/** The day drawn as plans go by it. */
export function TheDay({ shop }: { shop: Shop }) {
  const curve = air(shop.climate);
  const hours = Array.from({ length: 49 }, (_, i) => {
    const at = Math.min(1439.9, i * 30);
    return { hour: i / 2, c: curve.c(at), rh: curve.rh(at) };
  });
  return (
    <Suspense fallback={<p className="h-62 text-muted">Drawing the day…</p>}>
      <AirChart hours={hours} units={shop.units} face={shop.clockFace ?? "24"} />
    </Suspense>
  );
}

/** Twenty-four hours, each with its temperature and humidity. */
function HourTable({ shop }: { shop: Shop }) {
  const { hourly } = shop.climate;
  const time = (h: number): string => showTime(`${h}:00`, shop.clockFace ?? "24");
  const cell = (h: number, part: "c" | "rh") => (
    <TextField
      action="/workshop"
      name={`${part}.${h}`}
      label={`${part === "c" ? "Temperature" : "Humidity"} at ${time(h)}`}
      hideLabel
      value={part === "c" ? showTemp(hourly[h].c, shop.units) : `${Math.round(hourly[h].rh * 100)} %`}
      extra={{ intent: "climate" }}
    />
  );
  const half = (from: number) => (
    <table className="!w-[19rem]">
      <thead>
        <tr>
          <th scope="col">Hour</th>
          <th scope="col">Temperature</th>
          <th scope="col">Humidity</th>
        </tr>
      </thead>
      <tbody>
        {hourly.slice(from, from + 12).map((_, i) => (
          <tr key={from + i}>
            <th scope="row" className="num !py-0.5">
              {time(from + i)}
            </th>
            <td className="!py-0.5">{cell(from + i, "c")}</td>
            <td className="!py-0.5">{cell(from + i, "rh")}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
  return (
    <div className="flex flex-wrap gap-6">
      {half(0)}
      {half(12)}
    </div>
  );
}
