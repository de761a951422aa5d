-- A job now tells how long each source was joined: what is kept of every log is folded anew at the next start.
UPDATE "jobs" SET "snapshot" = NULL;
