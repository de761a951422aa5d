import { messagesOf } from '../messages-of';

/** Words of the screens of app, one list a part. */

export const APP_ROUTES = messagesOf('appRoutes');

export const APP = messagesOf('app');
