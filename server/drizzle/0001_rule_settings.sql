CREATE TABLE "rule_settings" (
	"position" serial PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"value" jsonb NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "rule_settings" ADD CONSTRAINT "rule_settings_by_crew_id_fk" FOREIGN KEY ("by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "rule_settings_key" ON "rule_settings" USING btree ("key","position");