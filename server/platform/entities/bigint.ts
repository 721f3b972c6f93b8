/** Numbers that PostgreSQL sends as text because they could be larger than JavaScript counts. */
export const bigint = {
  from: (value: string | null) => (value === null ? null : Number(value)),
  to: (value: unknown) => value,
};
