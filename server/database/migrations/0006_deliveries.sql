ALTER TABLE "renders" ADD COLUMN "files" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "sidecar" text;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "take" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "renders" ADD COLUMN "revision" integer;--> statement-breakpoint
-- A render had one file, and options that have grown since.
UPDATE "renders" SET "files" = jsonb_build_array(jsonb_build_object(
  'name', coalesce("file_name", "id"),
  'stored', coalesce("stored", "id" || CASE "options"->>'format' WHEN 'png' THEN '.zip' ELSE '.mov' END),
  'bytes', coalesce("file_bytes", 0),
  'mediaType', CASE "options"->>'format' WHEN 'png' THEN 'application/zip' ELSE 'video/quicktime' END
)) WHERE "status" = 'done';--> statement-breakpoint
UPDATE "renders" SET "options" = '{"holds":1,"scale":1,"name":"{card}","bits":8}'::jsonb || "options" WHERE "options"->>'format' = 'png';--> statement-breakpoint
UPDATE "renders" SET "options" = '{"holds":1,"scale":1,"name":"{card}","alpha":"straight","matte":"#000000","timecode":""}'::jsonb || ("options" - 'bits') WHERE "options"->>'format' = 'prores4444';
