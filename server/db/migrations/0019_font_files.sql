CREATE TABLE "font_files" (
	"name" text PRIMARY KEY NOT NULL,
	"bytes" "bytea" NOT NULL,
	"made" timestamp with time zone DEFAULT now() NOT NULL
);
