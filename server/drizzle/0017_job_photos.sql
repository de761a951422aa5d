CREATE TABLE "job_photos" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"jpeg" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job_photos" ADD CONSTRAINT "job_photos_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_photos" ADD CONSTRAINT "job_photos_by_crew_id_fk" FOREIGN KEY ("by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_photos_of" ON "job_photos" USING btree ("job_id");