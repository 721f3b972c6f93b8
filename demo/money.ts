export type Currency = '£' | '€';

/** Cents as people write them: £1,234.50, or 1.234,50 € in German and French papers. */
export function money(cents: number, currency: Currency = '£'): string {
  const whole = Math.floor(cents / 100);
  const part = String(cents % 100).padStart(2, '0');
  const [thousands, decimal] = currency === '£' ? [',', '.'] : ['.', ','];
  const grouped = String(whole).replace(/\B(?=(\d{3})+$)/g, thousands);
  return currency === '£' ? `£${grouped}${decimal}${part}` : `${grouped}${decimal}${part} €`;
}
