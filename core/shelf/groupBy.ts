/** What has the same key together, in the order in which the keys come. */
export function groupBy<Each, Key>(all: readonly Each[], keyOf: (each: Each) => Key): Map<Key, Each[]> {
  const by = new Map<Key, Each[]>();
  for (const each of all) {
    const key = keyOf(each);
    const group = by.get(key);
    if (group) group.push(each);
    else by.set(key, [each]);
  }
  return by;
}
