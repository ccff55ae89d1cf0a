CREATE TABLE "accounts" (
	"id" text PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"password_hash" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "accounts_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "blobs" (
	"sha256" text PRIMARY KEY NOT NULL,
	"size" bigint NOT NULL,
	"crc32" bigint NOT NULL,
	"facts" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"preview" text DEFAULT 'waiting' NOT NULL,
	"preview_error" text,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "downloads" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"file_id" text NOT NULL,
	"edition" integer NOT NULL,
	"placement" text,
	"at" timestamp with time zone NOT NULL,
	"bytes" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "editions" (
	"file_id" text NOT NULL,
	"number" integer NOT NULL,
	"sha256" text NOT NULL,
	"file_name" text NOT NULL,
	"media_type" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"pinned" boolean DEFAULT false NOT NULL,
	"upload_id" text,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "editions_file_id_number_pk" PRIMARY KEY("file_id","number"),
	CONSTRAINT "editions_upload_id_unique" UNIQUE("upload_id")
);
--> statement-breakpoint
CREATE TABLE "files" (
	"id" text PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"handle" text NOT NULL,
	"edition" integer NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"changed" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted" timestamp with time zone,
	CONSTRAINT "files_handle_unique" UNIQUE("handle")
);
--> statement-breakpoint
CREATE TABLE "page_versions" (
	"page_id" text NOT NULL,
	"number" integer NOT NULL,
	"title" text NOT NULL,
	"document" jsonb NOT NULL,
	"published" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "page_versions_page_id_number_pk" PRIMARY KEY("page_id","number")
);
--> statement-breakpoint
CREATE TABLE "pages" (
	"id" text PRIMARY KEY NOT NULL,
	"slug" text NOT NULL,
	"title" text NOT NULL,
	"draft" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"live_revision" integer,
	"live" integer,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"changed" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "pages_slug_unique" UNIQUE("slug")
);
--> statement-breakpoint
CREATE TABLE "retired_handles" (
	"handle" text PRIMARY KEY NOT NULL,
	"file_id" text
);
--> statement-breakpoint
CREATE TABLE "settings" (
	"key" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "uses" (
	"page_id" text NOT NULL,
	"side" text NOT NULL,
	"placement" text NOT NULL,
	"kind" text NOT NULL,
	"label" text NOT NULL,
	"file_id" text,
	"save_as" text DEFAULT '' NOT NULL,
	CONSTRAINT "uses_page_id_side_placement_pk" PRIMARY KEY("page_id","side","placement")
);
--> statement-breakpoint
ALTER TABLE "editions" ADD CONSTRAINT "editions_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "editions" ADD CONSTRAINT "editions_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_versions" ADD CONSTRAINT "page_versions_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "retired_handles" ADD CONSTRAINT "retired_handles_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "uses" ADD CONSTRAINT "uses_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "blobs_waiting" ON "blobs" USING btree ("preview") WHERE "blobs"."preview" = 'waiting';--> statement-breakpoint
CREATE INDEX "downloads_file" ON "downloads" USING btree ("file_id","at");--> statement-breakpoint
CREATE INDEX "downloads_placement" ON "downloads" USING btree ("placement");--> statement-breakpoint
CREATE INDEX "editions_sha256" ON "editions" USING btree ("sha256");--> statement-breakpoint
CREATE INDEX "files_created" ON "files" USING btree ("created");--> statement-breakpoint
CREATE INDEX "uses_file" ON "uses" USING btree ("file_id");