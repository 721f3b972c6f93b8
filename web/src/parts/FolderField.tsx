import { ComponentProps, lazy, Suspense } from 'react';
import { inputLook } from './controls';

const FolderInput = lazy(() => import('./FolderInput'));

/** A field for a folder. It comes after the station that it stands in; until then it shows what it says. */
export function FolderField(props: ComponentProps<typeof FolderInput>) {
  return (
    <Suspense fallback={<div className={`${inputLook} truncate`}>{props.value || '\u00a0'}</div>}>
      <FolderInput {...props} />
    </Suspense>
  );
}
