import { useLayoutEffect, useState } from 'react';

type Functions<Those> = { [Name in keyof Those]: (...given: never[]) => unknown };

/** The same functions for as long as a component lives, each doing what the latest of its name does. */
export function useLatest<Those extends Functions<Those>>(those: Those): Those {
  const [following] = useState(() => new Following(those));
  useLayoutEffect(() => following.follow(those));
  return following.functions;
}

class Following<Those extends Functions<Those>> {
  readonly functions: Those;

  constructor(private latest: Those) {
    const names = Object.keys(latest) as (keyof Those)[];
    const entries = names.map((name) => [name, (...given: never[]) => this.latest[name](...given)]);
    this.functions = Object.fromEntries(entries) as Those;
  }

  follow(latest: Those): void {
    this.latest = latest;
  }
}
