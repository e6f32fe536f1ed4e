// How numbers, money and moments are written: one way on all screens, and the same way
// the sentences of the program have it (a point, a real minus, a day as yyyy-mm-dd).

const forms = new Map<number, Intl.NumberFormat>();

/** A number with so many decimals. */
export function fixed(x: number, decimals: number): string {
  let form = forms.get(decimals);
  if (!form)
    forms.set(
      decimals,
      (form = new Intl.NumberFormat('en-GB', {
        minimumFractionDigits: decimals,
        maximumFractionDigits: decimals,
        useGrouping: false,
      })),
    );
  return form.format(x).replace('-', '−');
}

/** A change, with its sign; one too small to show is ±. */
export function signed(x: number, decimals: number): string {
  const size = fixed(Math.abs(x), decimals);
  return (Number(size) === 0 ? '±' : x > 0 ? '+' : '−') + size;
}

export function money(amount: number, currency: string): string {
  return `${fixed(amount, 2)} ${currency}`;
}

/** A sum in each of its currencies; empty: nothing. */
export const sums = (totals: { amount: number; currency: string }[]) =>
  totals.map((t) => money(t.amount, t.currency)).join(' and ');

const clock = new Intl.DateTimeFormat('en-GB', {
  year: 'numeric',
  month: '2-digit',
  day: '2-digit',
  hour: '2-digit',
  minute: '2-digit',
  hourCycle: 'h23',
});

/** When something was, on the clock of who looks: 2026-05-12 14:05. */
export function moment(at: string): string {
  const time = new Date(at);
  if (Number.isNaN(time.getTime())) return at;
  const part = Object.fromEntries(clock.formatToParts(time).map((p) => [p.type, p.value]));
  return `${part.year}-${part.month}-${part.day} ${part.hour}:${part.minute}`;
}
