/** A test waits this long for what is to come: a machine with other work beside is ten times as slow as a quiet one, and no slower for it being wrong. */
jasmine.DEFAULT_TIMEOUT_INTERVAL = 60_000;
