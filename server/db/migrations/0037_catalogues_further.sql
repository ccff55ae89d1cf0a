CREATE TABLE "binned_fields" (
	"id" text PRIMARY KEY NOT NULL,
	"catalogue_id" text NOT NULL,
	"field" jsonb NOT NULL,
	"place" integer NOT NULL,
	"held" jsonb NOT NULL,
	"deleted" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "catalogues" ADD COLUMN "properties" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "catalogues" ADD COLUMN "of_site" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "catalogues" ADD COLUMN "source" jsonb;--> statement-breakpoint
ALTER TABLE "entry_imports" ADD COLUMN "file_id" text;--> statement-breakpoint
ALTER TABLE "entry_imports" ADD COLUMN "edition" integer;--> statement-breakpoint
ALTER TABLE "binned_fields" ADD CONSTRAINT "binned_fields_catalogue_id_catalogues_id_fk" FOREIGN KEY ("catalogue_id") REFERENCES "public"."catalogues"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "catalogues_of_site" ON "catalogues" USING btree ("of_site") WHERE "catalogues"."of_site";--> statement-breakpoint
-- The plan of a function is kept: made for one row, it would go through thousands for each of them.
alter function told_changed_files() set enable_nestloop = off;
--> statement-breakpoint
alter function told_changed_editions() set enable_nestloop = off;
--> statement-breakpoint
alter function told_changed_pages() set enable_nestloop = off;
--> statement-breakpoint
alter function told_read() set enable_nestloop = off;
