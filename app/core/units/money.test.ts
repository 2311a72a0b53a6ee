import { minorDigits, parseMoney, showMoney, typedMoney } from "./money";

test.each([
  ["9.50", "EUR", 950],
  ["9,5", "EUR", 950],
  ["€ 1,250.00", "EUR", 125000],
  ["1.250,00", "EUR", 125000],
  ["1 250", "USD", 125000],
  ["1,250", "USD", 125000],
  ["1250", "JPY", 1250],
  [".35", "EUR", 35],
  ["0.125", "KWD", 125],
  ["12 EUR", "EUR", 1200],
  ["0", "EUR", 0],
  ["9.999", "EUR", 999900],
  ["1,234,567", "EUR", 123456700],
])("%s in %s", (text, currency, minor) => expect(parseMoney(text, currency)).toEqual({ ok: true, value: minor }));
test.each(["", "abc", "-3", "1.2.3.4x", "1.23.4", "1e5", "12 345.678,9,1", "99999999999"])(
  "“%s” is refused by name",
  (text) => {
    const r = parseMoney(text, "EUR");
    expect(r.ok).toBe(false);
    expect(r.ok ? "" : r.error).toContain(`“${text.trim()}”`);
  },
);
test("there and back, in currencies of none, two and three digits, and in one that nobody knows", () => {
  for (const currency of ["EUR", "JPY", "KWD", "q!"])
    for (const minor of [0, 1, 99, 100, 123456]) {
      const again = parseMoney(typedMoney(minor, currency), currency);
      expect(again).toEqual({ ok: true, value: minor });
    }
  expect(minorDigits("JPY")).toBe(0);
  expect(showMoney(1900, "EUR")).toBe("€19.00");
  expect(showMoney(1900, "q!")).toBe("19.00 q!");
  expect(showMoney(null, "EUR")).toBe("unknown");
});
