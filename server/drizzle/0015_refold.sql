ALTER TABLE "job_events" ADD COLUMN "sent_by" text;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_sent_by_crew_id_fk" FOREIGN KEY ("sent_by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- A fold fills fields that it did not before: the temperature of a try, what a charger gave, a case that warmed.
UPDATE "jobs" SET "snapshot" = NULL;
