ALTER TABLE "jobs" ADD COLUMN "machine_class" text DEFAULT 'car' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "arrived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "minutes_to_running" double precision;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "started_by" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "batteries_fitted" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "was_charged" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "helped_tries" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "overridden" jsonb DEFAULT '[]'::jsonb NOT NULL;