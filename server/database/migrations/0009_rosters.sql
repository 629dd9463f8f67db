CREATE TABLE "batches" (
	"id" text PRIMARY KEY NOT NULL,
	"card_id" text NOT NULL,
	"roster_id" text NOT NULL,
	"card_name" text NOT NULL,
	"roster_name" text NOT NULL,
	"left_out" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rosters" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"document" jsonb NOT NULL,
	"card_id" text,
	"revision" integer DEFAULT 1 NOT NULL,
	"recent_saves" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "batch_id" text;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "row_id" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "row_name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "row_start" integer;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "programme" jsonb;--> statement-breakpoint
ALTER TABLE "renders" ADD CONSTRAINT "renders_batch_id_batches_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batches"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "renders_batch" ON "renders" USING btree ("batch_id");