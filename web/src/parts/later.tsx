import { ComponentType, ReactNode, useEffect, useState } from 'react';

/** A part of the interface whose script comes when it is shown first, or earlier when it is asked for. */
export type Later<Props extends object> = ComponentType<Props> & { load: () => Promise<void> };

/**
 * Until its script is there, nothing or what stands in for it is shown in its place; once it is, it shows at once. (What React suspends is kept back for a third
 * of a second even then, so that parts don't flash in one after the other.)
 */
export function later<Props extends object>(
  fetch: () => Promise<ComponentType<Props>>,
  standIn: (props: Props) => ReactNode = () => null,
): Later<Props> {
  let part: ComponentType<Props> | undefined;
  let coming: Promise<void> | undefined;
  const load = () =>
    (coming ??= fetch().then(
      (found) => {
        part = found;
      },
      (error: unknown) => {
        // The next one who needs it tries again.
        coming = undefined;
        throw error;
      },
    ));
  function Part(props: Props) {
    const [Shown, setShown] = useState(() => part);
    const [failed, setFailed] = useState<Error>();
    useEffect(() => {
      if (!Shown)
        load().then(
          () => setShown(() => part),
          (error: Error) => setFailed(error),
        );
    }, [Shown]);
    if (failed) throw failed;
    return Shown ? <Shown {...props} /> : standIn(props);
  }
  return Object.assign(Part, { load });
}
