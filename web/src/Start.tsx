import { Navigate } from 'react-router';
import { opensOnCamera } from './parts/start';

/** Where the application opens from a home screen: on the camera, where that was chosen. */
export function Start() {
  return <Navigate to={opensOnCamera() ? '/capture?source=camera' : '/capture'} replace />;
}
