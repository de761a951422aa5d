import { type Shown, tell } from '../tell';

/** Words of the linked instruments under Kit. */
export const INSTRUMENTS_PART = {
  linkedInstruments: 'Linked instruments',
  address: 'Address',
  addressOf: (instrument: Shown) => tell`Address of the ${instrument}`,
  inTheseNetworks: (networks: Shown) =>
    tell`An address and its port, as 192.168.1.20:5025, in one of these networks: ${networks}.`,
  setBy: {
    server: 'Named in the settings of the server, and changed there.',
    'crew-lead': 'Set here.',
    'stand-in': 'A stand-in of the demo. An address takes its place.',
    none: 'None set.',
  },
  link: 'Link',
  unlink: 'Unlink',
  onlyALead: 'A crew lead links instruments.',
} as const;
