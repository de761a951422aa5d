-- A job now tells which batteries were lifted: what is kept of every log is folded anew at the next start.
UPDATE "jobs" SET "snapshot" = NULL;
