CREATE TABLE "exams" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"crew_id" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone NOT NULL,
	"is_in_time" boolean NOT NULL,
	"runs" jsonb NOT NULL,
	"marks" jsonb NOT NULL,
	"signed_by" text,
	"signed_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "exams" ADD CONSTRAINT "exams_crew_id_crew_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exams" ADD CONSTRAINT "exams_signed_by_crew_id_fk" FOREIGN KEY ("signed_by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;