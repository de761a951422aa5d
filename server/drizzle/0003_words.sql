-- The trade's words: a model is what a maker built, a battery is a battery. Logs keep the words they were written in and are read
-- through upgradeEvent; what stands beside them is put into today's words here.
ALTER TABLE "machines" RENAME TO "models";--> statement-breakpoint
ALTER TABLE "machine_changes" RENAME TO "model_changes";--> statement-breakpoint
ALTER TABLE "machine_photos" RENAME TO "model_photos";--> statement-breakpoint
ALTER TABLE "model_changes" RENAME COLUMN "machine_id" TO "model_id";--> statement-breakpoint
ALTER TABLE "model_photos" RENAME COLUMN "machine_id" TO "model_id";--> statement-breakpoint
ALTER TABLE "calls" RENAME COLUMN "machine_id" TO "model_id";--> statement-breakpoint
ALTER TABLE "jobs" RENAME COLUMN "machine_id" TO "model_id";--> statement-breakpoint
ALTER INDEX "machine_changes_in_order" RENAME TO "model_changes_in_order";--> statement-breakpoint
ALTER INDEX "machine_photos_of" RENAME TO "model_photos_of";--> statement-breakpoint
ALTER INDEX "machines_by_text" RENAME TO "models_by_text";--> statement-breakpoint
ALTER INDEX "jobs_by_machine" RENAME TO "jobs_by_model";--> statement-breakpoint
ALTER TABLE "model_changes" RENAME CONSTRAINT "machine_changes_machine_id_machines_id_fk" TO "model_changes_model_id_models_id_fk";--> statement-breakpoint
ALTER TABLE "model_changes" RENAME CONSTRAINT "machine_changes_by_crew_id_fk" TO "model_changes_by_crew_id_fk";--> statement-breakpoint
ALTER TABLE "model_photos" RENAME CONSTRAINT "machine_photos_machine_id_machines_id_fk" TO "model_photos_model_id_models_id_fk";--> statement-breakpoint
ALTER TABLE "model_photos" RENAME CONSTRAINT "machine_photos_by_crew_id_fk" TO "model_photos_by_crew_id_fk";--> statement-breakpoint
ALTER TABLE "calls" RENAME CONSTRAINT "calls_machine_id_machines_id_fk" TO "calls_model_id_models_id_fk";--> statement-breakpoint
ALTER TABLE "jobs" RENAME CONSTRAINT "jobs_machine_id_machines_id_fk" TO "jobs_model_id_models_id_fk";--> statement-breakpoint
CREATE FUNCTION pg_temp.in_todays_words(was jsonb) RETURNS jsonb LANGUAGE sql AS $$
	SELECT replace(replace(replace(replace(replace(was::text,
		'"blocks":', '"batteries":'), '"block":', '"battery":'), '"block-', '"battery-'), '"bite":', '"contact":'),
		'"spare-blocks"', '"spare-batteries"')::jsonb
$$;--> statement-breakpoint
UPDATE "models" SET "detail" = pg_temp.in_todays_words("detail");--> statement-breakpoint
UPDATE "model_changes" SET "detail" = pg_temp.in_todays_words("detail") WHERE "detail" IS NOT NULL;--> statement-breakpoint
UPDATE "kit_items" SET "detail" = pg_temp.in_todays_words("detail");--> statement-breakpoint
UPDATE "rule_settings" SET "key" = 'veryFlatBattery' WHERE "key" = 'veryFlatBlock';--> statement-breakpoint
UPDATE "jobs" SET "verdict" = 'charge-first' WHERE "verdict" = 'recheck';--> statement-breakpoint
-- Which stage stood on a screen is no longer part of a log; two devices on one job once filled a log with nothing else.
DELETE FROM "job_events" WHERE "type" = 'stage.opened';--> statement-breakpoint
UPDATE "job_events" SET "position" = -1 - "position";--> statement-breakpoint
UPDATE "job_events" AS "e" SET "position" = "n"."place" FROM (
	SELECT "id", row_number() OVER (PARTITION BY "job_id" ORDER BY "position" DESC) - 1 AS "place" FROM "job_events"
) AS "n" WHERE "n"."id" = "e"."id";--> statement-breakpoint
UPDATE "jobs" SET "revision" = (SELECT count(*) FROM "job_events" WHERE "job_events"."job_id" = "jobs"."id");

