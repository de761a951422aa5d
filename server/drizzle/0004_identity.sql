-- Whose vehicle, whose battery, whose van. Calls of before named a model alone: each gets a vehicle of its own, without a plate, since
-- nobody can say which of them were the same.
ALTER TABLE "crew" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "vans" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "kit_items" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "job_events" ADD COLUMN "heard_at" timestamp with time zone;--> statement-breakpoint
CREATE TABLE "batteries" (
	"id" uuid PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"rating" jsonb NOT NULL,
	"date_mark" text,
	"state" text NOT NULL,
	"vehicle_id" text,
	"place" integer,
	"van_id" text,
	"since" timestamp with time zone NOT NULL,
	CONSTRAINT "batteries_code_unique" UNIQUE("code")
);--> statement-breakpoint
CREATE TABLE "battery_entries" (
	"position" serial PRIMARY KEY NOT NULL,
	"battery_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"kind" text NOT NULL,
	"volts" double precision,
	"share" double precision,
	"spread" double precision
);--> statement-breakpoint
CREATE TABLE "battery_moves" (
	"position" serial PRIMARY KEY NOT NULL,
	"battery_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"vehicle_id" text,
	"place" integer,
	"van_id" text,
	"note" text DEFAULT '' NOT NULL,
	"job_id" uuid,
	"event_id" uuid
);--> statement-breakpoint
CREATE TABLE "call_changes" (
	"position" serial PRIMARY KEY NOT NULL,
	"call_id" text NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"van_id" text,
	"technician_id" text,
	"reason" text NOT NULL
);--> statement-breakpoint
CREATE TABLE "follow_ups" (
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"due_on" date NOT NULL,
	"done" boolean NOT NULL,
	CONSTRAINT "follow_ups_job_id_kind_pk" PRIMARY KEY("job_id","kind")
);--> statement-breakpoint
CREATE TABLE "kit_uses" (
	"kit_item_id" text NOT NULL,
	"job_id" uuid NOT NULL,
	"share" double precision NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "kit_uses_kit_item_id_job_id_pk" PRIMARY KEY("kit_item_id","job_id")
);--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text,
	"phone" text,
	"created_at" timestamp with time zone NOT NULL,
	"erased_at" timestamp with time zone
);--> statement-breakpoint
CREATE TABLE "vehicles" (
	"id" text PRIMARY KEY NOT NULL,
	"plate" text,
	"plate_key" text,
	"fleet_number" text,
	"serial_number" text,
	"model_id" text NOT NULL,
	"owner_id" uuid,
	"notes" text DEFAULT '' NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"search_text" text NOT NULL
);--> statement-breakpoint
INSERT INTO "vehicles" ("id", "model_id", "created_at", "search_text")
	SELECT 'of-' || "calls"."id", "calls"."model_id", "received_at", lower(' ' || "maker" || ' ' || "model")
	FROM "calls" JOIN "models" ON "models"."id" = "calls"."model_id";--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "vehicle_id" text;--> statement-breakpoint
UPDATE "calls" SET "vehicle_id" = 'of-' || "id";--> statement-breakpoint
ALTER TABLE "calls" ALTER COLUMN "vehicle_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "caller_id" uuid;--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "state" text DEFAULT 'waiting' NOT NULL;--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "van_id" text;--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "technician_id" text;--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "promised_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "calls" ADD COLUMN "ended_at" timestamp with time zone;--> statement-breakpoint
UPDATE "calls" SET "state" = CASE "jobs"."state" WHEN 'closed' THEN 'done' ELSE 'taken' END, "ended_at" = "jobs"."closed_at", "van_id" = (SELECT min("id") FROM "vans"), "technician_id" = "jobs"."by" FROM "jobs" WHERE "jobs"."call_id" = "calls"."id";--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "vehicle_id" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "van_id" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "snapshot" jsonb;--> statement-breakpoint
UPDATE "jobs" SET "vehicle_id" = 'of-' || "call_id", "van_id" = coalesce((SELECT min("id") FROM "vans"), 'van-1');--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "vehicle_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "van_id" SET NOT NULL;--> statement-breakpoint
DROP INDEX "jobs_by_closing";--> statement-breakpoint
CREATE INDEX "jobs_by_closing" ON "jobs" USING btree ("state","closed_at" DESC NULLS LAST,"id");--> statement-breakpoint
ALTER TABLE "batteries" ADD CONSTRAINT "batteries_vehicle_id_vehicles_id_fk" FOREIGN KEY ("vehicle_id") REFERENCES "public"."vehicles"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batteries" ADD CONSTRAINT "batteries_van_id_vans_id_fk" FOREIGN KEY ("van_id") REFERENCES "public"."vans"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "battery_entries" ADD CONSTRAINT "battery_entries_battery_id_batteries_id_fk" FOREIGN KEY ("battery_id") REFERENCES "public"."batteries"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "battery_moves" ADD CONSTRAINT "battery_moves_battery_id_batteries_id_fk" FOREIGN KEY ("battery_id") REFERENCES "public"."batteries"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "battery_moves" ADD CONSTRAINT "battery_moves_vehicle_id_vehicles_id_fk" FOREIGN KEY ("vehicle_id") REFERENCES "public"."vehicles"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "battery_moves" ADD CONSTRAINT "battery_moves_van_id_vans_id_fk" FOREIGN KEY ("van_id") REFERENCES "public"."vans"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_changes" ADD CONSTRAINT "call_changes_call_id_calls_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."calls"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kit_uses" ADD CONSTRAINT "kit_uses_kit_item_id_kit_items_id_fk" FOREIGN KEY ("kit_item_id") REFERENCES "public"."kit_items"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_model_id_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."models"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_owner_id_people_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "calls_vehicle_id_vehicles_id_fk" FOREIGN KEY ("vehicle_id") REFERENCES "public"."vehicles"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "calls_caller_id_people_id_fk" FOREIGN KEY ("caller_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "calls_van_id_vans_id_fk" FOREIGN KEY ("van_id") REFERENCES "public"."vans"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "calls_technician_id_crew_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_vehicle_id_vehicles_id_fk" FOREIGN KEY ("vehicle_id") REFERENCES "public"."vehicles"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batteries_in" ON "batteries" USING btree ("vehicle_id","place");--> statement-breakpoint
CREATE INDEX "batteries_on" ON "batteries" USING btree ("van_id");--> statement-breakpoint
CREATE INDEX "battery_entries_of" ON "battery_entries" USING btree ("battery_id","at");--> statement-breakpoint
CREATE INDEX "battery_entries_by_job" ON "battery_entries" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "battery_moves_of" ON "battery_moves" USING btree ("battery_id","position");--> statement-breakpoint
CREATE INDEX "battery_moves_in" ON "battery_moves" USING btree ("vehicle_id","place","position");--> statement-breakpoint
CREATE INDEX "battery_moves_by_event" ON "battery_moves" USING btree ("event_id");--> statement-breakpoint
CREATE INDEX "call_changes_of" ON "call_changes" USING btree ("call_id","position");--> statement-breakpoint
CREATE INDEX "calls_by_state" ON "calls" USING btree ("state","ended_at");--> statement-breakpoint
CREATE INDEX "calls_of_vehicle" ON "calls" USING btree ("vehicle_id");--> statement-breakpoint
CREATE INDEX "follow_ups_due" ON "follow_ups" USING btree ("done","due_on");--> statement-breakpoint
CREATE INDEX "jobs_by_vehicle" ON "jobs" USING btree ("vehicle_id","opened_at");--> statement-breakpoint
CREATE INDEX "vehicles_by_text" ON "vehicles" USING gin ("search_text" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "vehicles_by_plate" ON "vehicles" USING btree ("plate_key");--> statement-breakpoint
CREATE INDEX "vehicles_by_model" ON "vehicles" USING btree ("model_id");
