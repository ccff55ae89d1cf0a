CREATE TABLE "transfers" (
	"key" text PRIMARY KEY NOT NULL,
	"state" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE INDEX "transfers_at" ON "transfers" USING btree ("at");