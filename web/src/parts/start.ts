const KEY = 'crow.start';
const CAMERA = 'camera';

/** Whether this device opens the application on the camera. */
export const opensOnCamera = (): boolean => localStorage.getItem(KEY) === CAMERA;

export function openOnCamera(wanted: boolean): void {
  if (wanted) localStorage.setItem(KEY, CAMERA);
  else localStorage.removeItem(KEY);
}
