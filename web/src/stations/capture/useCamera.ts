import { useEffect, useRef, useState } from 'react';

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

/** The picture of a camera that the browser reaches, from when this is mounted until it goes. @param id empty for any camera, on the back of a phone if it has one */
export function useCamera(id: string): CameraState {
  const [stream, setStream] = useState<MediaStream>();
  const [choices, setChoices] = useState<CameraChoice[]>([]);
  const [trouble, setTrouble] = useState<string>();
  const [lit, setLitState] = useState(false);
  const track = stream?.getVideoTracks()[0];
  const capabilities = (track?.getCapabilities?.() ?? {}) as MediaTrackCapabilities & { torch?: boolean };

  useEffect(() => {
    let gone = false;
    let opened: MediaStream | undefined;
    const open = async () => {
      if (!navigator.mediaDevices?.getUserMedia) throw new DOMException('', 'NotFoundError');
      const which = id ? { deviceId: { exact: id } } : { facingMode: 'environment' };
      opened = await navigator.mediaDevices.getUserMedia({ video: { ...WANTED, ...which } });
      if (gone) return opened.getTracks().forEach((each) => each.stop());
      opened.getVideoTracks()[0].addEventListener('ended', () => setTrouble(TROUBLES.gone));
      setStream(opened);
      setTrouble(undefined);
      const devices = await navigator.mediaDevices.enumerateDevices();
      setChoices(
        devices
          .filter(({ kind }) => kind === 'videoinput')
          .map(({ deviceId, label }, index) => ({ id: deviceId, name: label || `Camera ${index + 1}` })),
      );
    };
    open().catch((error: DOMException) => {
      if (!gone) setTrouble(TROUBLES[error.name] ?? TROUBLES.other);
    });
    return () => {
      gone = true;
      opened?.getTracks().forEach((each) => each.stop());
      setStream(undefined);
      setLitState(false);
    };
  }, [id]);

  const setLit = (on: boolean) => {
    void track
      ?.applyConstraints({ advanced: [{ torch: on } as MediaTrackConstraintSet] })
      .then(() => setLitState(on))
      .catch(() => undefined);
  };
  return { stream, choices, trouble, hasLight: capabilities.torch === true, lit, setLit };
}

const TROUBLES: Record<string, string> = {
  NotAllowedError:
    'The browser may not use the camera. Allow it beside the address of this page, then choose the camera again.',
  NotFoundError: 'There is no camera on this device. Connect one, or take in files instead.',
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
