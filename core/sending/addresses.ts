/** Signs that divide addresses, as long as they stand in no quoted name. */
const BETWEEN = /[,;](?=(?:[^"]*"[^"]*")*[^"]*$)/;
/** Something at a host: what mail servers take without being asked for more (RFC 5321, 4.1.2, without quoted local parts). */
const BARE =
  /^[^\s@<>(),;:"\\[\]]+@(?:[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?\.)*[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?$/u;
const LONGEST = 254;

/** The addresses in a line in which commas or semicolons divide them, each as it is written: `ada@books.example, "Quay, Bo" <bo@quay.example>`. */
export function addressesIn(line: string): string[] {
  return line
    .split(BETWEEN)
    .map((each) => each.trim())
    .filter(Boolean);
}

/** Whether that is a mail address, by itself or behind a name: `Ada <ada@books.example>`. */
export function isAddress(written: string): boolean {
  const bare = bareAddress(written);
  return bare.length <= LONGEST && BARE.test(bare);
}

/** An address without the name before it. */
export function bareAddress(written: string): string {
  const [, inside] = /^[^<>]*<([^<>]*)>$/.exec(written.trim()) ?? [];
  return (inside ?? written).trim();
}
