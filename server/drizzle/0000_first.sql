CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE TABLE "calls" (
	"id" text PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"received_at" timestamp with time zone NOT NULL,
	"title" text NOT NULL,
	"place_name" text NOT NULL,
	"said" text NOT NULL,
	"machine_id" text NOT NULL,
	"ambient_c" double precision NOT NULL,
	"urgent" boolean NOT NULL,
	CONSTRAINT "calls_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "crew" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "facts" (
	"key" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "job_events" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"type" text NOT NULL,
	"data" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"call_id" text NOT NULL,
	"call_number" integer NOT NULL,
	"title" text NOT NULL,
	"place_name" text NOT NULL,
	"machine_id" text NOT NULL,
	"stage" text NOT NULL,
	"state" text NOT NULL,
	"verdict" text,
	"suspect" text,
	"lowest_rest_volts" double precision,
	"opened_at" timestamp with time zone NOT NULL,
	"closed_at" timestamp with time zone,
	"by" text NOT NULL,
	"revision" integer NOT NULL,
	"search_text" text NOT NULL,
	CONSTRAINT "jobs_call_id_unique" UNIQUE("call_id")
);
--> statement-breakpoint
CREATE TABLE "kit_items" (
	"id" text PRIMARY KEY NOT NULL,
	"van_id" text NOT NULL,
	"position" integer NOT NULL,
	"detail" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "machines" (
	"id" text PRIMARY KEY NOT NULL,
	"maker" text NOT NULL,
	"model" text NOT NULL,
	"machine_class" text NOT NULL,
	"detail" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "vans" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "calls_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_by_crew_id_fk" FOREIGN KEY ("by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_call_id_calls_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."calls"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kit_items" ADD CONSTRAINT "kit_items_van_id_vans_id_fk" FOREIGN KEY ("van_id") REFERENCES "public"."vans"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "job_events_in_order" ON "job_events" USING btree ("job_id","position");--> statement-breakpoint
CREATE INDEX "jobs_by_closing" ON "jobs" USING btree ("state","closed_at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "jobs_by_machine" ON "jobs" USING btree ("machine_id","opened_at");--> statement-breakpoint
CREATE INDEX "jobs_by_text" ON "jobs" USING gin ("search_text" gin_trgm_ops);