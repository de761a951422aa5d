import type { Vehicle } from '../record.js';

/** Returns the name of a vehicle among people: its plate, else its fleet or serial number; null where none is known. */
export function vehicleName({
  plate,
  fleetNumber,
  serialNumber,
}: Pick<Vehicle, 'plate' | 'fleetNumber' | 'serialNumber'>): string | null {
  if (plate) return plate;
  if (fleetNumber) return `fleet ${fleetNumber}`;
  return serialNumber ? `no. ${serialNumber}` : null;
}
