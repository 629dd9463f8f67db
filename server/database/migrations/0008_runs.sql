CREATE TABLE "card_turns" (
	"card_id" text PRIMARY KEY NOT NULL,
	"served" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "render_runs" (
	"render_id" text NOT NULL,
	"index" integer NOT NULL,
	"frames" integer NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"worker" text,
	"attempts" integer DEFAULT 0 NOT NULL,
	"heartbeat" timestamp with time zone,
	"frames_done" integer DEFAULT 0 NOT NULL,
	"segment" text,
	CONSTRAINT "render_runs_render_id_index_pk" PRIMARY KEY("render_id","index")
);
--> statement-breakpoint
CREATE TABLE "tokens" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "tokens_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "workers" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"place" text NOT NULL,
	"lanes" integer NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "priority" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "small" text;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "kept" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "render_runs" ADD CONSTRAINT "render_runs_render_id_renders_id_fk" FOREIGN KEY ("render_id") REFERENCES "public"."renders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "render_runs_state" ON "render_runs" USING btree ("state","render_id","index");