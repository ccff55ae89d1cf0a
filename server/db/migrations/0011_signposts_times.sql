CREATE TABLE "old_addresses" (
	"path" text PRIMARY KEY NOT NULL,
	"target" jsonb,
	"missed" integer DEFAULT 0 NOT NULL,
	"last_missed" timestamp with time zone,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "retired_signposts" (
	"name" text PRIMARY KEY NOT NULL,
	"signpost_id" text
);
--> statement-breakpoint
CREATE TABLE "signposts" (
	"id" text PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"name" text NOT NULL,
	"file_id" text,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"changed" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "signposts_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "timetable" (
	"id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"act" jsonb NOT NULL,
	"failed" text
);
--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "withdrawn" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "uses" ADD COLUMN "signpost_id" text;--> statement-breakpoint
ALTER TABLE "retired_signposts" ADD CONSTRAINT "retired_signposts_signpost_id_signposts_id_fk" FOREIGN KEY ("signpost_id") REFERENCES "public"."signposts"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "signposts" ADD CONSTRAINT "signposts_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "signposts_file" ON "signposts" USING btree ("file_id");--> statement-breakpoint
CREATE INDEX "uses_signpost" ON "uses" USING btree ("signpost_id");