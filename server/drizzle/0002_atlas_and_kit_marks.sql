CREATE TABLE "kit_marks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kit_item_id" text NOT NULL,
	"need" text NOT NULL,
	"job_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"done_by" text,
	"done_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "machine_changes" (
	"position" serial PRIMARY KEY NOT NULL,
	"machine_id" text NOT NULL,
	"revision" integer NOT NULL,
	"kind" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"note" text NOT NULL,
	"detail" jsonb
);
--> statement-breakpoint
CREATE TABLE "machine_photos" (
	"id" uuid PRIMARY KEY NOT NULL,
	"machine_id" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"jpeg" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "machines" ADD COLUMN "confidence" text DEFAULT 'maker' NOT NULL;--> statement-breakpoint
ALTER TABLE "machines" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "machines" ADD COLUMN "search_text" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "kit_marks" ADD CONSTRAINT "kit_marks_kit_item_id_kit_items_id_fk" FOREIGN KEY ("kit_item_id") REFERENCES "public"."kit_items"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kit_marks" ADD CONSTRAINT "kit_marks_done_by_crew_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_changes" ADD CONSTRAINT "machine_changes_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_changes" ADD CONSTRAINT "machine_changes_by_crew_id_fk" FOREIGN KEY ("by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_photos" ADD CONSTRAINT "machine_photos_machine_id_machines_id_fk" FOREIGN KEY ("machine_id") REFERENCES "public"."machines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_photos" ADD CONSTRAINT "machine_photos_by_crew_id_fk" FOREIGN KEY ("by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "kit_marks_once" ON "kit_marks" USING btree ("kit_item_id","need","job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "machine_changes_in_order" ON "machine_changes" USING btree ("machine_id","revision");--> statement-breakpoint
CREATE INDEX "machine_photos_of" ON "machine_photos" USING btree ("machine_id","at");--> statement-breakpoint
CREATE INDEX "machines_by_text" ON "machines" USING gin ("search_text" gin_trgm_ops);--> statement-breakpoint
-- Entries made before heights, zones and layouts were kept: what is not known yet takes the plainest value.
UPDATE "machines" SET
	"detail" = "detail" || jsonb_build_object(
		'side', null,
		'zones', '[]'::jsonb,
		'never', '[]'::jsonb,
		'blocks', (
			SELECT jsonb_agg('{"layout":"positive-left","topMm":800,"ventHose":false}'::jsonb || "block")
			FROM jsonb_array_elements("detail"->'blocks') AS "block"
		)
	),
	"search_text" = lower(' ' || "maker" || ' ' || "model" || ' ' || "machine_class")
WHERE NOT ("detail" ? 'zones');
