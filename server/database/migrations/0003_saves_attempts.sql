ALTER TABLE "cards" ADD COLUMN "recent_saves" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "stored" text;