-- Unlogged: what is staged is worth nothing after a crash, and need not be synced.
CREATE UNLOGGED TABLE "staged_models" (
	"batch" uuid NOT NULL,
	"position" integer NOT NULL,
	"revision" integer NOT NULL,
	"search_text" text NOT NULL,
	"detail" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "staged_models_batch_position_pk" PRIMARY KEY("batch","position")
);
