import { messagesOf } from '../messages-of';

/** Words of the screens of atlas, one list a part. */

export const ATLAS_PAGE = messagesOf('atlasPage');

export const ENTRY_VIEW = messagesOf('entryView');
