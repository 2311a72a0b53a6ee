/** What the shop is called, its units, and how this screen looks. */
import { useState } from "react";
import type { Shop } from "../../core/records/shop";
import { PickField, TextField } from "../kit/field";
import { LabelledPick } from "../kit/pick";
import { chooseTheme, readTheme, type Theme } from "../theme";

export function ScreenPart({ shop }: { shop: Shop }) {
  return (
    <div className="flex max-w-3xl flex-col gap-4">
      <TextField name="name" label="Called" value={shop.name} />
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
        <PickField
          name="units"
          label="Units"
          value={shop.units}
          options={[
            { value: "metric", label: "mm, °C" },
            { value: "inch", label: "inch, °F" },
          ]}
        />
        <PickField
          name="clockFace"
          label="Clocks"
          value={shop.clockFace ?? "24"}
          options={[
            { value: "24", label: "16:30" },
            { value: "12", label: "4:30 pm" },
          ]}
        />
        <PickField
          name="weekStart"
          label="Weeks begin"
          value={shop.weekStart ?? ""}
          options={[
            { value: "", label: "as the browser has it" },
            { value: "mon", label: "on Monday" },
            { value: "sun", label: "on Sunday" },
            { value: "sat", label: "on Saturday" },
          ]}
        />
        <TextField name="currency" label="Currency" value={shop.currency} />
        <TextField
          name="tolerance"
          label="Colour tolerance"
          value={String(shop.tolerance)}
          hint="2 strict, 4 ordinary"
        />
      </div>
      <ThemePick />
    </div>
  );
}

function ThemePick() {
  const [theme, set] = useState<Theme>(() => readTheme());
  return (
    <LabelledPick
      label="Light"
      value={theme}
      onChange={(v) => (set(v as Theme), chooseTheme(v as Theme))}
      options={[
        { value: "auto", label: "as the computer has it" },
        { value: "day", label: "day" },
        { value: "night", label: "night" },
      ]}
    />
  );
}
