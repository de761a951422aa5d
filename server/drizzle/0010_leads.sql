-- A job now tells what was read of lead sets: what is kept of every log is folded anew at the next start.
UPDATE "jobs" SET "snapshot" = NULL;
