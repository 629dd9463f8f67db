ALTER TABLE "renders" DROP COLUMN "file_name";--> statement-breakpoint
ALTER TABLE "renders" DROP COLUMN "stored";--> statement-breakpoint
ALTER TABLE "renders" DROP COLUMN "file_bytes";