CREATE TABLE "daily_counts" (
	"day" date NOT NULL,
	"what" text NOT NULL,
	"of_what" text NOT NULL,
	"detail" text DEFAULT '' NOT NULL,
	"count" integer NOT NULL,
	CONSTRAINT "daily_counts_what_day_of_what_detail_pk" PRIMARY KEY("what","day","of_what","detail")
);
