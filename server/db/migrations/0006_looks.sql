CREATE TABLE "looks" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"appearance" jsonb NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "looks_name_unique" UNIQUE("name")
);
