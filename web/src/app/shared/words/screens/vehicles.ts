import { messagesOf } from '../messages-of';

/** Words of the screens of vehicles, one list a part. */

export const VEHICLE_DIALOG = messagesOf('vehicleDialog');

export const VEHICLE_PAGE = messagesOf('vehiclePage');

export const VEHICLES_PAGE = messagesOf('vehiclesPage');
