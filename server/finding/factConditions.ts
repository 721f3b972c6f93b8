import { Condition } from '@crow/core/finding/query';

/** Small letters without accents, as `fold` makes them. */
export const folded = (value: string) =>
  `lower(regexp_replace(replace(normalize(${value}, nfd), 'ß', 'ss'), '[\\u0300-\\u036f]', '', 'g'))`;

/**
 * What conditions of a query come to for a document `d` and the paths of folders in `paths`.
 * @param values takes what the conditions compare with; they refer to it by number
 * @param one whether they are asked of a few documents, one by one, rather than of all at once
 */
export function factConditions(
  conditions: readonly Condition[],
  values: unknown[],
  { one = false }: { one?: boolean } = {},
): string[] {
  const parameter = (value: unknown) => `$${values.push(value)}`;
  const fact = (name: string, holds: string) =>
    `exists (select 1 from fact f where f.document_id = d.id and f.name = '${name}' and ${holds}${one ? ' offset 0' : ''})`;
  return conditions.map((condition) => {
    switch (condition.field) {
      case 'total':
      case 'net':
      case 'tax':
        return fact(
          condition.field,
          `f.value::numeric ${condition.comparison} ${parameter(condition.amount)}::numeric`,
        );
      case 'date':
      case 'dueDate':
        return fact(condition.field, inRange(condition, parameter));
      case 'folder':
        return `${folded('paths.path')} like ${parameter(containing(condition.text))}`;
      default:
        return fact(condition.field, `${folded('f.value')} like ${parameter(containing(condition.text))}`);
    }
  });
}

/** Days compare with the beginning or the end of what was typed: after 2025 is from 2026 on. ISO dates sort as text. */
function inRange(
  { comparison, from, to }: Extract<Condition, { from: string }>,
  parameter: (value: unknown) => string,
): string {
  if (comparison === '=') return `f.value between ${parameter(from)} and ${parameter(to)}`;
  return `f.value ${comparison} ${parameter(comparison === '<' || comparison === '>=' ? from : to)}`;
}

/** A pattern for “contains”, in which nothing typed has a meaning of its own. */
function containing(text: string): string {
  return `%${text.replace(/[\\%_]/g, '\\$&')}%`;
}
