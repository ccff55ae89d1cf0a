CREATE TABLE "left_findings" (
	"key" text PRIMARY KEY NOT NULL,
	"because" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "walks" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"pages" integer NOT NULL,
	"placements" integer NOT NULL,
	"counts" jsonb NOT NULL
);
