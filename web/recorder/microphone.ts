/** The device's microphone, with the clean-up that browsers offer for speech. */
export const openMicrophone = (): Promise<MediaStream> => {
  // `mediaDevices` is missing where the page is not served securely.
  if (!('mediaDevices' in navigator)) return Promise.reject(new DOMException('', 'SecurityError'));
  return navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: true, noiseSuppression: true, autoGainControl: true, channelCount: { ideal: 1 } },
  });
};

/** What is wrong with the microphone, and what to do. https://www.w3.org/TR/mediacapture-streams/#dom-mediadevices-getusermedia */
export function microphoneSentence(error: unknown): string {
  switch (error instanceof DOMException ? error.name : '') {
    case 'NotAllowedError':
      return 'The browser was not allowed to use the microphone. Allow it in the address bar, then try again.';
    case 'NotFoundError':
      return 'No microphone was found. Plug one in, or use the practice microphone.';
    case 'NotReadableError':
      return 'The microphone is in use by another program. Close that program, then try again.';
    case 'SecurityError':
      return 'A microphone can only be used over https or on this computer itself. Ask who runs this server.';
    default:
      return 'The microphone could not be started. Unplug it, plug it in again, and try once more.';
  }
}

export const isMissing = (error: unknown): boolean => error instanceof DOMException && error.name === 'NotFoundError';

/** Whether the browser would hand out the microphone without asking the person. */
export async function microphoneIsGranted(): Promise<boolean> {
  try {
    const { state } = await navigator.permissions.query({ name: 'microphone' });
    return state === 'granted';
  } catch {
    return false;
  }
}
