CREATE TABLE "sequences" (
	"id" text PRIMARY KEY NOT NULL,
	"file_name" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"frames" integer NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
