import { inputLook } from './controls';
import { later } from './later';

/** A field for a folder. It comes after the station that it stands in; until then it shows what it says. */
export const FolderField = later(
  async () => (await import('./FolderInput')).default,
  ({ value }) => <div className={`${inputLook} truncate`}>{value || '\u00a0'}</div>,
);
