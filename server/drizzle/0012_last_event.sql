-- A job now tells when its last event happened: what is kept of every log is folded anew at the next start.
UPDATE "jobs" SET "snapshot" = NULL;
