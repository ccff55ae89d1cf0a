CREATE TABLE "binned_pages" (
	"id" text PRIMARY KEY NOT NULL,
	"slug" text NOT NULL,
	"title" text NOT NULL,
	"live" boolean NOT NULL,
	"deleted" timestamp with time zone DEFAULT now() NOT NULL,
	"kept" jsonb NOT NULL
);
--> statement-breakpoint
CREATE INDEX "binned_pages_deleted" ON "binned_pages" USING btree ("deleted");