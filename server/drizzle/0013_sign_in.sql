CREATE TABLE "audit" (
	"position" serial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text,
	"kind" text NOT NULL,
	"about" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "crew_secrets" (
	"crew_id" text PRIMARY KEY NOT NULL,
	"pin_hash" text NOT NULL,
	"failures" integer DEFAULT 0 NOT NULL,
	"locked_until" timestamp with time zone,
	"set_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "passkey_questions" (
	"device_hash" text PRIMARY KEY NOT NULL,
	"question" text NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "passkeys" (
	"id" text PRIMARY KEY NOT NULL,
	"crew_id" text NOT NULL,
	"name" text NOT NULL,
	"public_key" "bytea" NOT NULL,
	"counter" integer NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"device_hash" text NOT NULL,
	"crew_id" text NOT NULL,
	"device" text NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	"handed_over_at" timestamp with time zone,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_by_crew_id_fk" FOREIGN KEY ("by") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "crew_secrets" ADD CONSTRAINT "crew_secrets_crew_id_crew_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "passkeys" ADD CONSTRAINT "passkeys_crew_id_crew_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_crew_id_crew_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crew"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "sessions_of_device" ON "sessions" USING btree ("device_hash","crew_id");