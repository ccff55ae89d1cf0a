CREATE TABLE "catalogues" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"one" text NOT NULL,
	"slug" text NOT NULL,
	"fields" jsonb NOT NULL,
	"key" text,
	"type" text,
	"revision" integer DEFAULT 1 NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "catalogues_slug_unique" UNIQUE("slug")
);
--> statement-breakpoint
CREATE TABLE "entries" (
	"id" text PRIMARY KEY NOT NULL,
	"catalogue_id" text NOT NULL,
	"slug" text NOT NULL,
	"values" jsonb NOT NULL,
	"live" jsonb,
	"published" timestamp with time zone,
	"place" integer NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"changed" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "entry_files" (
	"entry_id" text NOT NULL,
	"side" text NOT NULL,
	"field" text NOT NULL,
	"file_id" text NOT NULL,
	CONSTRAINT "entry_files_entry_id_side_field_file_id_pk" PRIMARY KEY("entry_id","side","field","file_id")
);
--> statement-breakpoint
CREATE TABLE "entry_import_rows" (
	"import_id" text NOT NULL,
	"entry_id" text NOT NULL,
	"before" jsonb,
	"revision" integer NOT NULL,
	"binned" boolean DEFAULT false NOT NULL,
	CONSTRAINT "entry_import_rows_import_id_entry_id_pk" PRIMARY KEY("import_id","entry_id")
);
--> statement-breakpoint
CREATE TABLE "entry_imports" (
	"id" text PRIMARY KEY NOT NULL,
	"catalogue_id" text,
	"name" text NOT NULL,
	"state" text NOT NULL,
	"rows" jsonb NOT NULL,
	"columns" jsonb NOT NULL,
	"counts" jsonb,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "entry_versions" (
	"entry_id" text NOT NULL,
	"number" integer NOT NULL,
	"values" jsonb NOT NULL,
	"published" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text DEFAULT '' NOT NULL,
	CONSTRAINT "entry_versions_entry_id_number_pk" PRIMARY KEY("entry_id","number")
);
--> statement-breakpoint
CREATE TABLE "retired_catalogue_slugs" (
	"slug" text PRIMARY KEY NOT NULL,
	"catalogue_id" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "retired_entry_slugs" (
	"catalogue_id" text NOT NULL,
	"slug" text NOT NULL,
	"entry_id" text NOT NULL,
	CONSTRAINT "retired_entry_slugs_catalogue_id_slug_pk" PRIMARY KEY("catalogue_id","slug")
);
--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "catalogue_id" text;--> statement-breakpoint
ALTER TABLE "entries" ADD CONSTRAINT "entries_catalogue_id_catalogues_id_fk" FOREIGN KEY ("catalogue_id") REFERENCES "public"."catalogues"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_files" ADD CONSTRAINT "entry_files_entry_id_entries_id_fk" FOREIGN KEY ("entry_id") REFERENCES "public"."entries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_import_rows" ADD CONSTRAINT "entry_import_rows_import_id_entry_imports_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."entry_imports"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_imports" ADD CONSTRAINT "entry_imports_catalogue_id_catalogues_id_fk" FOREIGN KEY ("catalogue_id") REFERENCES "public"."catalogues"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_versions" ADD CONSTRAINT "entry_versions_entry_id_entries_id_fk" FOREIGN KEY ("entry_id") REFERENCES "public"."entries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "retired_catalogue_slugs" ADD CONSTRAINT "retired_catalogue_slugs_catalogue_id_catalogues_id_fk" FOREIGN KEY ("catalogue_id") REFERENCES "public"."catalogues"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "retired_entry_slugs" ADD CONSTRAINT "retired_entry_slugs_catalogue_id_catalogues_id_fk" FOREIGN KEY ("catalogue_id") REFERENCES "public"."catalogues"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "retired_entry_slugs" ADD CONSTRAINT "retired_entry_slugs_entry_id_entries_id_fk" FOREIGN KEY ("entry_id") REFERENCES "public"."entries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "entries_catalogue" ON "entries" USING btree ("catalogue_id","place");--> statement-breakpoint
CREATE UNIQUE INDEX "entries_slug" ON "entries" USING btree ("catalogue_id","slug") WHERE "entries"."deleted" is null;--> statement-breakpoint
CREATE INDEX "entries_deleted" ON "entries" USING btree ("deleted") WHERE "entries"."deleted" is not null;--> statement-breakpoint
CREATE INDEX "entry_files_file" ON "entry_files" USING btree ("file_id");--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_catalogue_id_catalogues_id_fk" FOREIGN KEY ("catalogue_id") REFERENCES "public"."catalogues"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_catalogue_id_unique" UNIQUE("catalogue_id");--> statement-breakpoint
-- Entries are told with their catalogue. What lists of all of them lean on, their names, order and addresses, is told of the catalogue.
create function told_new_entries() returns trigger language plpgsql as $$ begin
  perform tell('entries', (select array_agg(catalogue_id || '/' || id) from new_rows));
  perform tell('catalogues', (select array_agg(distinct catalogue_id) from new_rows)); return null;
end $$;
--> statement-breakpoint
create function told_old_entries() returns trigger language plpgsql as $$ begin
  perform tell('entries', (select array_agg(catalogue_id || '/' || id) from old_rows));
  perform tell('catalogues', (select array_agg(distinct catalogue_id) from old_rows)); return null;
end $$;
--> statement-breakpoint
-- The plan of a function is kept: made for one row, it would go through ten thousand for each of them.
create function told_changed_entries() returns trigger language plpgsql set enable_nestloop = off as $$ begin
  perform tell('entries', (select array_agg(catalogue_id || '/' || id) from new_rows));
  perform tell('catalogues', (select array_agg(distinct n.catalogue_id) from old_rows o join new_rows n using (id)
    where (o.slug, o.place, o.deleted, o.live is null, o.live ->> 'title') is distinct from (n.slug, n.place, n.deleted, n.live is null, n.live ->> 'title')));
  -- What lies in the bin uses no files.
  if exists (select 1 from old_rows o join new_rows n using (id) where o.deleted is distinct from n.deleted) then perform tell('uses'); end if;
  return null;
end $$;
--> statement-breakpoint
create trigger told_insert after insert on entries referencing new table as new_rows for each statement execute function told_new_entries();
--> statement-breakpoint
create trigger told_delete after delete on entries referencing old table as old_rows for each statement execute function told_old_entries();
--> statement-breakpoint
create trigger told_update after update on entries referencing old table as old_rows new table as new_rows for each statement execute function told_changed_entries();
--> statement-breakpoint
create function told_catalogue() returns trigger language plpgsql as $$ begin
  perform tell('catalogues', array[coalesce(new.id, old.id)]); perform tell('live'); return null;
end $$;
--> statement-breakpoint
create trigger told after insert or update or delete on catalogues for each row execute function told_catalogue();
--> statement-breakpoint
create trigger told after insert or update or delete on entry_files for each statement execute function told_topics('uses');
--> statement-breakpoint
create trigger told after insert or update or delete on entry_imports for each statement execute function told_topics('entryImports');
