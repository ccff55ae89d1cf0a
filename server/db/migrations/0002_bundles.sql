CREATE TABLE "bundles" (
	"file_id" text PRIMARY KEY NOT NULL,
	"file_name" text NOT NULL,
	"entries" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"composed" timestamp with time zone DEFAULT now() NOT NULL,
	"size" bigint NOT NULL,
	"count" integer NOT NULL,
	"fingerprint" text NOT NULL,
	"changed" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "bundles" ADD CONSTRAINT "bundles_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE cascade ON UPDATE no action;