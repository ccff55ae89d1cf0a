CREATE TABLE "folders" (
	"id" text PRIMARY KEY NOT NULL,
	"parent" text,
	"name" text NOT NULL,
	"mark" text,
	"description" text DEFAULT '' NOT NULL,
	"own_order" boolean DEFAULT false NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "texts" (
	"sha256" text NOT NULL,
	"number" integer NOT NULL,
	"part" text NOT NULL,
	"body" text NOT NULL,
	"words" "tsvector" NOT NULL,
	CONSTRAINT "texts_sha256_number_pk" PRIMARY KEY("sha256","number")
);
--> statement-breakpoint
ALTER TABLE "blobs" RENAME COLUMN "preview_error" TO "reading_error";--> statement-breakpoint
DROP INDEX "blobs_waiting";--> statement-breakpoint
ALTER TABLE "blobs" ADD COLUMN "reading" text DEFAULT 'waiting' NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "folder" text;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "position" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "description" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "tags" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "picture" text;--> statement-breakpoint
ALTER TABLE "folders" ADD CONSTRAINT "folders_parent_folders_id_fk" FOREIGN KEY ("parent") REFERENCES "public"."folders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "texts" ADD CONSTRAINT "texts_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "folders_parent" ON "folders" USING btree ("parent");--> statement-breakpoint
CREATE INDEX "texts_words" ON "texts" USING gin ("words") WITH (fastupdate=false);--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_folder_folders_id_fk" FOREIGN KEY ("folder") REFERENCES "public"."folders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_picture_files_id_fk" FOREIGN KEY ("picture") REFERENCES "public"."files"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "files_folder" ON "files" USING btree ("folder");--> statement-breakpoint
CREATE INDEX "blobs_waiting" ON "blobs" USING btree ("created") WHERE "blobs"."reading" <> 'done';