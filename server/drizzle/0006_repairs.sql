-- A job now tells of its repairs: what is kept of every log is folded anew at the next start.
UPDATE "jobs" SET "snapshot" = NULL;
