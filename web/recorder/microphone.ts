/** The device's microphone, with the clean-up that browsers offer for speech. */
export async function openMicrophone(deviceId?: string): Promise<MediaStream> {
  // `mediaDevices` is missing where the page is not served securely.
  if (!('mediaDevices' in navigator)) throw new DOMException('', 'SecurityError');
  const audio = { echoCancellation: true, noiseSuppression: true, autoGainControl: true, channelCount: { ideal: 1 } };
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: deviceId ? { ...audio, deviceId: { exact: deviceId } } : audio,
    });
  } catch (error) {
    // The one that was chosen is not plugged in today.
    if (
      !deviceId ||
      !(error instanceof DOMException) ||
      !['OverconstrainedError', 'NotFoundError'].includes(error.name)
    )
      throw error;
    return navigator.mediaDevices.getUserMedia({ audio });
  }
}

/** The picture for a camera or screen note. */
export function openPicture(picture: 'camera' | 'screen'): Promise<MediaStream> {
  if (!('mediaDevices' in navigator)) return Promise.reject(new DOMException('', 'SecurityError'));
  return picture === 'camera'
    ? navigator.mediaDevices.getUserMedia({ video: { width: { ideal: 640 }, height: { ideal: 480 } } })
    : navigator.mediaDevices.getDisplayMedia({ video: true, audio: false });
}

/** Microphones by name; browsers tell the names once one was allowed. */
export async function listMicrophones(): Promise<{ id: string; name: string }[]> {
  if (!('mediaDevices' in navigator)) return [];
  const devices = await navigator.mediaDevices.enumerateDevices();
  return devices
    .filter(({ kind, deviceId }) => kind === 'audioinput' && deviceId !== '')
    .map(({ deviceId, label }, index) => ({ id: deviceId, name: label || `Microphone ${index + 1}` }));
}

/** What is wrong with the microphone, and what to do. https://www.w3.org/TR/mediacapture-streams/#dom-mediadevices-getusermedia */
export function microphoneSentence(error: unknown): string {
  switch (nameOf(error)) {
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

/** The same for a camera or a screen. Voice alone is always possible. */
export function pictureSentence(error: unknown, picture: 'camera' | 'screen'): string {
  const what = picture === 'camera' ? 'camera' : 'screen';
  switch (nameOf(error)) {
    case 'NotAllowedError':
      return `The browser was not allowed to record the ${what}. Allow it, or speak without a picture.`;
    case 'NotFoundError':
      return `No ${what} was found. Speak without a picture.`;
    case 'NotReadableError':
      return `The ${what} is in use by another program. Close that program, or speak without a picture.`;
    default:
      return `The ${what} could not be recorded. Speak without a picture.`;
  }
}

const nameOf = (error: unknown): string => (error instanceof DOMException ? error.name : '');

export const isMissing = (error: unknown): boolean => nameOf(error) === 'NotFoundError';

/** Whether the browser would hand out the microphone without asking the person. */
export async function microphoneIsGranted(): Promise<boolean> {
  try {
    const { state } = await navigator.permissions.query({ name: 'microphone' });
    return state === 'granted';
  } catch {
    return false;
  }
}
