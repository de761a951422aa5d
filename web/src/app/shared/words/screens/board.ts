import { messagesOf } from '../messages-of';

/** Words of the screens of board, one list a part. */

export const BOARD_PAGE = messagesOf('boardPage');

export const CALL_DIALOG = messagesOf('callDialog');

export const NEW_CALL = messagesOf('newCall');
export const DESK_PAGE = messagesOf('deskPage');
export const SHIFT_PAGE = messagesOf('shiftPage');
