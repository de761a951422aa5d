-- The board shows what is on a charger, and until when.
ALTER TABLE "jobs" ADD COLUMN "charge_until" timestamp with time zone;--> statement-breakpoint
UPDATE "jobs" SET "snapshot" = NULL;
