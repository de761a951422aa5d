import { messagesOf } from '../messages-of';

/** Words of the screens of drawing, one list a part. */

export const CIRCUIT_VIEW = messagesOf('circuitView');

export const MACHINE_DRAWING = messagesOf('machineDrawing');

export const SIDE_VIEW = messagesOf('sideView');

export const VEHICLE = messagesOf('vehicle');

export const LEADS = messagesOf('leads');

export const CIRCUIT_LAYOUT = messagesOf('circuitLayout');
