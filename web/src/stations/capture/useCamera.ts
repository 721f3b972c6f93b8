import { useEffect, useRef, useState } from 'react';
import { openStandIn, STAND_IN } from './standInCamera';

/** A camera that can be chosen. */
export interface CameraChoice {
  id: string;
  name: string;
}

export interface CameraState {
  stream: MediaStream | undefined;
  choices: CameraChoice[];
  /** Why there is no picture, as sentences; undefined while all is well or still starting. */
  trouble: string | undefined;
  /** Whether the camera has a light that can be switched. */
  hasLight: boolean;
  lit: boolean;
  setLit: (lit: boolean) => void;
}

const WANTED = { width: { ideal: 4096 }, height: { ideal: 3072 } };

/** A camera that has been started. */
interface Opened {
  stream: MediaStream;
  /** Switches its light, if it has one. */
  light?: (on: boolean) => void;
  end: () => void;
}

async function openCamera(id: string, onGone: () => void): Promise<Opened> {
  if (id === STAND_IN.id) {
    const { stream, setLit, end } = await openStandIn();
    return { stream, light: setLit, end };
  }
  if (!navigator.mediaDevices?.getUserMedia) throw new DOMException('', 'NotFoundError');
  const which = id ? { deviceId: { exact: id } } : { facingMode: 'environment' };
  const stream = await navigator.mediaDevices.getUserMedia({ video: { ...WANTED, ...which } });
  const [track] = stream.getVideoTracks();
  track.addEventListener('ended', onGone);
  const { torch } = (track.getCapabilities?.() ?? {}) as MediaTrackCapabilities & { torch?: boolean };
  const light = (on: boolean) =>
    void track.applyConstraints({ advanced: [{ torch: on } as MediaTrackConstraintSet] }).catch(() => undefined);
  return { stream, ...(torch && { light }), end: () => stream.getTracks().forEach((each) => each.stop()) };
}

/** The cameras that the browser knows; it tells their names only once it may use one. */
async function listCameras(): Promise<CameraChoice[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return devices
    .filter(({ kind, deviceId }) => kind === 'videoinput' && deviceId)
    .map(({ deviceId, label }, index) => ({ id: deviceId, name: label || `Camera ${index + 1}` }));
}

/**
 * The picture of a camera that the browser reaches, or of the stand-in, from when this is mounted until it goes.
 * @param id empty for any camera, on the back of a phone if it has one
 */
export function useCamera(id: string): CameraState {
  const [opened, setOpened] = useState<Opened>();
  const [cameras, setCameras] = useState<CameraChoice[]>([]);
  const [trouble, setTrouble] = useState<string>();
  const [lit, setLit] = useState(false);

  useEffect(() => {
    let over = false;
    let mine: Opened | undefined;
    openCamera(id, () => setTrouble(TROUBLES.gone))
      .then((camera) => {
        mine = camera;
        if (over) return camera.end();
        setOpened(camera);
        setTrouble(undefined);
      })
      .catch((error: DOMException) => !over && setTrouble(TROUBLES[error.name] ?? TROUBLES.other))
      .then(listCameras)
      .then((found) => !over && setCameras(found))
      .catch(() => undefined);
    return () => {
      over = true;
      mine?.end();
      setOpened(undefined);
      setLit(false);
    };
  }, [id]);

  return {
    stream: opened?.stream,
    choices: [...cameras, STAND_IN],
    trouble,
    hasLight: Boolean(opened?.light),
    lit,
    setLit: (on) => {
      opened?.light?.(on);
      setLit(on);
    },
  };
}

const TROUBLES: Record<string, string> = {
  NotAllowedError:
    'The browser may not use the camera. Allow it beside the address of this page, then choose the camera again.',
  NotFoundError:
    'There is no camera on this device. Connect one, choose the stand-in camera, or take in files instead.',
  NotReadableError: 'Another program is using the camera. Close it there, then choose the camera again.',
  OverconstrainedError: 'That camera is not there any more. Choose another one.',
  gone: 'The camera was taken away. Nothing taken so far is lost; connect it and choose it again.',
  other: 'The camera could not be started. Choose it again, or take in files instead.',
};

/** A video element that shows a stream, and knows the size of its frames once they come. */
export function useVideo(stream: MediaStream | undefined) {
  const ref = useRef<HTMLVideoElement>(null);
  const [size, setSize] = useState<{ width: number; height: number }>();
  useEffect(() => {
    const video = ref.current;
    if (!video) return;
    video.srcObject = stream ?? null;
    if (!stream) return;
    const learn = () => setSize({ width: video.videoWidth, height: video.videoHeight });
    video.addEventListener('resize', learn);
    video.addEventListener('loadedmetadata', learn);
    void video.play().catch(() => undefined);
    return () => {
      video.removeEventListener('resize', learn);
      video.removeEventListener('loadedmetadata', learn);
    };
  }, [stream]);
  return { ref, size };
}
