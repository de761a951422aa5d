-- A job now tells of each try what was joined and how long it had charged: what is kept of every log is folded anew at the next start.
UPDATE "jobs" SET "snapshot" = NULL;
