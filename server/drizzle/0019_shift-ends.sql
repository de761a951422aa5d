CREATE TABLE "shift_ends" (
	"id" uuid PRIMARY KEY NOT NULL,
	"given_by" text NOT NULL,
	"given_at" timestamp with time zone NOT NULL,
	"note" text NOT NULL,
	"taken_by" text,
	"taken_at" timestamp with time zone,
	"left" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "shift_ends" ADD CONSTRAINT "shift_ends_given_by_crew_id_fk" FOREIGN KEY ("given_by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shift_ends" ADD CONSTRAINT "shift_ends_taken_by_crew_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;