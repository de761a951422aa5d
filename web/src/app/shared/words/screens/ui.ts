import { messagesOf } from '../messages-of';

/** Words of the screens of ui, one list a part. */

export const IMPORT_DIALOG = messagesOf('importDialog');

export const NUMBER_PAD = messagesOf('numberPad');

export const BATTERY_FIELDS = messagesOf('batteryFields');

export const REASON_PROMPT = messagesOf('reasonPrompt');

export const ZOOM_PAN = messagesOf('zoomPan');

export const LABEL_READER = messagesOf('labelReader');
