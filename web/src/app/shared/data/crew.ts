import type { CrewMember } from '@voltrek/contracts';
import { serverCopy } from './server-copy';

/** A person of the crew as they are to be; one without an id is new. */
export type CrewChange = Omit<CrewMember, 'id'> & { readonly id: string | null };

/** The people of the house. */
export const crewCopy = serverCopy<readonly CrewMember[], CrewChange>('crew', [], {
  ask: (api) => api.crew(),
  send: (api, { id, ...member }) => (id === null ? api.addCrew(member) : api.changeCrew({ id, ...member })),
});

/** The crew of now. */
export const atWork = (crew: readonly CrewMember[]): readonly CrewMember[] => crew.filter((c) => !c.retired);
