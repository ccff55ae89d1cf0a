CREATE TABLE "download_changes" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "imports" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"format" text NOT NULL,
	"sha256" text NOT NULL,
	"downloads" integer NOT NULL,
	"first_day" date NOT NULL,
	"last_day" date NOT NULL,
	"whole" boolean DEFAULT false NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "imports_sha256_unique" UNIQUE("sha256")
);
--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "course" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "took" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "person" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "link" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "address" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "source" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "downloads_person" ON "downloads" USING btree ("person") WHERE person <> '';--> statement-breakpoint
CREATE INDEX "downloads_address" ON "downloads" USING btree ("at") WHERE address <> '';--> statement-breakpoint
CREATE INDEX "downloads_source" ON "downloads" USING btree ("source") WHERE source <> '';--> statement-breakpoint
create function told_old_downloads() returns trigger language plpgsql as $$ begin
  if not exists (select 1 from old_rows) then return null; end if;
  insert into download_changes default values;
  perform tell('downloads', (select array_agg(distinct file_id) from old_rows)); return null;
end $$;
--> statement-breakpoint
create trigger told_delete after delete on downloads referencing old table as old_rows for each statement execute function told_old_downloads();
--> statement-breakpoint
create function changed_downloads() returns trigger language plpgsql as $$ begin
  if exists (select 1 from new_rows) then insert into download_changes default values; end if;
  return null;
end $$;
--> statement-breakpoint
create trigger changed after update on downloads referencing new table as new_rows for each statement execute function changed_downloads();
